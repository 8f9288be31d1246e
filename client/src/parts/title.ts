import { useEffect } from "react";

// What the window is called: the desk, the class or thing in hand, the program.
let desk = "";
let thing: string | null = null;

const write = () => {
  document.title = [desk, thing, "Spring Loft"].filter(Boolean).join(" · ");
};

/** Names the desk in the window's title. */
export function useTitle(name: string) {
  useEffect(() => {
    desk = name;
    write();
  }, [name]);
}

/** Names the class in hand beside it, for as long as it is in hand. */
export function useTitleOf(name: string) {
  useEffect(() => {
    thing = name;
    write();
    return () => {
      thing = null;
      write();
    };
  }, [name]);
}
