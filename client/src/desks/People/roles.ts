import type { Schemas } from "../../api/client";

export const roleNames: Record<Schemas["SchoolRole"], string> = {
  Student: "student",
  Staff: "staff",
  Teacher: "teacher",
  Coordinator: "coordinator",
};

export type StaffRole = Exclude<Schemas["SchoolRole"], "Student">;
