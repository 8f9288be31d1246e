// @vitest-environment jsdom
import { expect, test } from "vitest";
import { sayAbout } from "./RoomToClose";

test("how long it takes is said as far as it is known", () => {
  expect(sayAbout(3)).toBe("less than a minute");
  expect(sayAbout(61)).toBe("about 1 minute");
  expect(sayAbout(600)).toBe("about 10 minutes");
  expect(sayAbout(7300)).toBe("about 2 hours");
});
