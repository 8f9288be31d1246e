import Box from "@mui/material/Box";
import { useEffect } from "react";
import { Navigate, Route, Routes } from "react-router";
import { useMe } from "./api/queries";
import { ProblemError } from "./api/client";
import { showCodes, standing, useStanding } from "./api/standing";
import { Desk, Empty } from "./parts/Desk";
import { KeysProvider } from "./parts/keys";
import { Problem } from "./parts/Problem";
import { TypedProvider } from "./parts/typed";
import { desk } from "./shell/desk";
import { fetchSoon } from "./parts/later";
import { Doorkeeper } from "./shell/Doorkeeper";
import { Shell } from "./shell/Shell";

// Each desk comes when it is opened, with its own code.
const AssignmentDesk = desk(() => import("./desks/Assignments/AssignmentDesk"), "AssignmentDesk");
const StudentToday = desk(() => import("./desks/Assignments/StudentToday"), "StudentToday");
const TeacherToday = desk(() => import("./desks/Assignments/TeacherToday"), "TeacherToday");
const GiveDesk = desk(() => import("./desks/Assignments/Giving/GiveDesk"), "GiveDesk");
const MarkingDesk = desk(() => import("./desks/Assignments/Marking/MarkingDesk"), "MarkingDesk");
const CombinedMarking = desk(() => import("./desks/Assignments/Marking/MarkingDesk"), "CombinedMarking");
const ScoreDesk = desk(() => import("./desks/Assignments/Scores/ScoreDesk"), "ScoreDesk");
const CombinedScores = desk(() => import("./desks/Assignments/Scores/ScoreDesk"), "CombinedScores");
const AuditTrail = desk(() => import("./desks/Audit/AuditTrail"), "AuditTrail");
const ClosingDesk = desk(() => import("./desks/Closing/ClosingDesk"), "ClosingDesk");
const ClosingMatrix = desk(() => import("./desks/Closing/ClosingMatrix"), "ClosingMatrix");
const ClosingPlan = desk(() => import("./desks/Closing/ClosingPlan"), "ClosingPlan");
const ClosingRun = desk(() => import("./desks/Closing/ClosingRun"), "ClosingRun");
const GateDesk = desk(() => import("./desks/Closing/GateDesk"), "GateDesk");
const KeptCopies = desk(() => import("./desks/Closing/KeptCopies"), "KeptCopies");
const ShelfDesk = desk(() => import("./desks/Closing/Shelf/ShelfDesk"), "ShelfDesk");
const TakeHomes = desk(() => import("./desks/Closing/TakeHomes"), "TakeHomes");
const PastDesk = desk(() => import("./desks/Workspaces/Past/PastDesk"), "PastDesk");
const TidyDesk = desk(() => import("./desks/Closing/TidyDesk"), "TidyDesk");
const Loft = desk(() => import("./desks/Closing/Loft"), "Loft");
const ChangePassword = desk(() => import("./desks/People/ChangePassword"), "ChangePassword");
const SignIn = desk(() => import("./desks/People/SignIn"), "SignIn");
const RecoveryCodes = desk(() => import("./desks/People/RecoveryCodes"), "RecoveryCodes");
const SecondStep = desk(() => import("./desks/People/SecondStep"), "SecondStep");
const SecondStepDoor = desk(() => import("./desks/People/SecondStepDoor"), "SecondStepDoor");
const SignOutHere = desk(() => import("./desks/People/SecondStepDoor"), "SignOutHere");
const SignedOn = desk(() => import("./desks/People/SignedOn"), "SignedOn");
const SignIns = desk(() => import("./desks/People/SignIns"), "SignIns");
const DirectoryDesk = desk(() => import("./desks/People/DirectoryDesk"), "DirectoryDesk");
const FamilyDesk = desk(() => import("./desks/People/Families/FamilyDesk"), "FamilyDesk");
const Duplicates = desk(() => import("./desks/People/Duplicates"), "Duplicates");
const Outbox = desk(() => import("./desks/People/Outbox"), "Outbox");
const ClassSlips = desk(() => import("./desks/People/Slips"), "ClassSlips");
const PeopleSlips = desk(() => import("./desks/People/Slips"), "PeopleSlips");
const FirstPasswords = desk(() => import("./desks/Naming/FirstPasswords"), "FirstPasswords");
const NameDesk = desk(() => import("./desks/Naming/NameDesk"), "NameDesk");
const UserNames = desk(() => import("./desks/Naming/UserNames"), "UserNames");
const PlanDesk = desk(() => import("./desks/Plans/PlanDesk"), "PlanDesk");
const PlanPut = desk(() => import("./desks/Plans/PlanPut"), "PlanPut");
const RollMany = desk(() => import("./desks/Rollover/RollMany"), "RollMany");
const RollRun = desk(() => import("./desks/Rollover/RollRun"), "RollRun");
const RolloverDesk = desk(() => import("./desks/Rollover/RolloverDesk"), "RolloverDesk");
const CombinedDesk = desk(() => import("./desks/Rosters/CombinedDesk"), "CombinedDesk");
const CombinedList = desk(() => import("./desks/Rosters/CombinedList"), "CombinedList");
const DeliveryDesk = desk(() => import("./desks/Rosters/DeliveryDesk"), "DeliveryDesk");
const DeliveryList = desk(() => import("./desks/Rosters/DeliveryList"), "DeliveryList");
const GroupDesk = desk(() => import("./desks/Rosters/GroupDesk"), "GroupDesk");
const InviteDesk = desk(() => import("./desks/Rosters/InviteDesk"), "InviteDesk");
const JoinCodeDesk = desk(() => import("./desks/Rosters/JoinCodeDesk"), "JoinCodeDesk");
const AcceptInvitation = desk(() => import("./desks/Rosters/JoinPages"), "AcceptInvitation");
const JoinClass = desk(() => import("./desks/Rosters/JoinPages"), "JoinClass");
const RosterDesk = desk(() => import("./desks/Rosters/RosterDesk"), "RosterDesk");
const RulesDesk = desk(() => import("./desks/School/RulesDesk"), "RulesDesk");
const ScalesDesk = desk(() => import("./desks/School/ScalesDesk"), "ScalesDesk");
const AcknowledgedDesk = desk(
  () => import("./desks/Workspaces/Acknowledged/AcknowledgedDesk"),
  "AcknowledgedDesk",
);
const NewsDesk = desk(() => import("./desks/Workspaces/News/NewsDesk"), "NewsDesk");
const ActivityDesk = desk(() => import("./desks/Workspaces/Activity/ActivityDesk"), "ActivityDesk");
const BinDesk = desk(() => import("./desks/Workspaces/BinDesk"), "BinDesk");
const Departments = desk(() => import("./desks/Workspaces/Departments"), "Departments");
const MakeClass = desk(() => import("./desks/Workspaces/MakeClass"), "MakeClass");
const MakeMany = desk(() => import("./desks/Workspaces/MakeMany"), "MakeMany");
const NoticeDesk = desk(() => import("./desks/Workspaces/Notices/NoticeDesk"), "NoticeDesk");
const SeeAs = desk(() => import("./desks/Workspaces/SeeAs"), "SeeAs");
const SharedThings = desk(() => import("./desks/Workspaces/SharedThings"), "SharedThings");
const StudentClass = desk(() => import("./desks/Workspaces/StudentClass"), "StudentClass");
const WorkspaceDesk = desk(() => import("./desks/Workspaces/WorkspaceDesk"), "WorkspaceDesk");
const YearDesk = desk(() => import("./desks/Years/YearDesk"), "YearDesk");
const YearBoard = desk(() => import("./desks/Years/YearBoard"), "YearBoard");

/** Which desk stands at which address, and for whom. */
export function App() {
  const me = useMe();
  const { ended, codes } = useStanding();
  const inside = me.data?.door === "Open";
  useEffect(() => {
    if (inside) fetchSoon();
  }, [inside]);
  if (me.isPending) return <Box role="status" aria-label="Loading" sx={{ minHeight: "100vh" }} />;
  // Where somebody is at work, their screen stays: what stands in the way is said over it.
  if (!me.data) {
    if (me.error instanceof ProblemError && me.error.status === 401) return <SignIn />;
    return (
      <Box component="main" sx={{ p: 4 }}>
        <Problem error={me.error} />
      </Box>
    );
  }
  standing.person = me.data.id;
  if (codes !== null)
    return (
      <Desk title="Second step">
        <RecoveryCodes codes={codes} onKept={() => showCodes(null)} />
      </Desk>
    );
  // A screen whose session ended stays; its door asks the step itself.
  if (me.data.door === "StepNeeded" && !ended) return <SecondStepDoor me={me.data} />;
  if (me.data.door === "StepToSetUp")
    return (
      <>
        <Doorkeeper me={me.data} />
        <Desk
          title={`Welcome, ${me.data.name.split(" ")[0]}`}
          lead="Your school asks a second step of you: besides your password, something that only you have. It takes two minutes."
        >
          <SecondStep />
          <SignOutHere name={me.data.name} />
        </Desk>
      </>
    );
  if (me.data.mustChangePassword)
    return (
      <>
        <Doorkeeper me={me.data} />
        <ChangePassword first name={me.data.name} />
      </>
    );
  const staff = me.data.role !== "Student";
  return (
    <KeysProvider>
      <TypedProvider>
        <Doorkeeper me={me.data} />
        <Shell me={me.data}>
          <Routes>
            <Route path="/join" element={<JoinClass />} />
            <Route path="/invitation" element={<AcceptInvitation />} />
            <Route path="/password" element={<ChangePassword name={me.data.name} />} />
            <Route path="/news" element={<NewsDesk />} />
            <Route path="/sign-ins" element={<SignIns />} />
            <Route path="/signed-on" element={<SignedOn />} />
            {staff ? (
              <>
                <Route path="/" element={<YearBoard me={me.data} />} />
                <Route path="/today" element={<TeacherToday />} />
                <Route path="/plan" element={<PlanDesk me={me.data} />} />
                <Route path="/plan/put" element={<PlanPut />} />
                {me.data.role === "Coordinator" && (
                  <>
                    <Route path="/plan/years" element={<YearDesk me={me.data} />} />
                    <Route path="/plan/names" element={<NameDesk me={me.data} />} />
                    <Route path="/plan/user-names" element={<UserNames me={me.data} />} />
                    <Route path="/enroll/directory/duplicates" element={<Duplicates me={me.data} />} />
                    <Route path="/enroll/directory/slips" element={<PeopleSlips />} />
                    <Route path="/outbox" element={<Outbox />} />
                    <Route path="/close/gate" element={<GateDesk me={me.data} />} />
                    <Route path="/enroll/deliveries" element={<DeliveryList me={me.data} />} />
                    <Route path="/enroll/deliveries/:id" element={<DeliveryDesk me={me.data} />} />
                    <Route path="/plan/first-passwords" element={<FirstPasswords me={me.data} />} />
                    <Route path="/plan/shared" element={<SharedThings me={me.data} />} />
                    <Route path="/plan/scales" element={<ScalesDesk me={me.data} />} />
                    <Route path="/plan/rules" element={<RulesDesk me={me.data} />} />
                  </>
                )}
                <Route path="/plan/departments" element={<Departments me={me.data} />} />
                <Route path="/set-up/many" element={<MakeMany />} />
                <Route path="/set-up" element={<MakeClass me={me.data} />} />
                <Route path="/enroll/directory" element={<DirectoryDesk me={me.data} />} />
                <Route path="/enroll/families" element={<FamilyDesk me={me.data} />} />
                <Route path="/enroll/combined" element={<CombinedList me={me.data} />} />
                <Route path="/enroll/combined/:id" element={<CombinedDesk me={me.data} />} />
                <Route path="/enroll/combined/:id/marking" element={<CombinedMarking />} />
                <Route path="/enroll/combined/:id/scores" element={<CombinedScores />} />
                <Route path="/enroll" element={<YearBoard me={me.data} season="roster" />} />
                <Route path="/work/notices" element={<NoticeDesk />} />
                <Route path="/work" element={<YearBoard me={me.data} season="work" />} />
                <Route path="/close" element={<ClosingMatrix me={me.data} />} />
                <Route path="/close/take-homes" element={<TakeHomes me={me.data} />} />
                <Route path="/close/kept" element={<KeptCopies me={me.data} />} />
                <Route path="/close/plan" element={<ClosingPlan />} />
                <Route path="/close/runs/:id" element={<ClosingRun />} />
                <Route path="/roll-over" element={<RollMany />} />
                <Route path="/roll-over/runs/:id" element={<RollRun />} />
                <Route path="/classes/:id" element={<Navigate to="set-up" replace />} />
                <Route path="/classes/:id/set-up" element={<WorkspaceDesk />} />
                <Route path="/classes/:id/see-as" element={<SeeAs />} />
                <Route path="/classes/:id/enroll" element={<RosterDesk />} />
                <Route path="/classes/:id/groups" element={<GroupDesk />} />
                <Route path="/classes/:id/join-code" element={<JoinCodeDesk />} />
                <Route path="/classes/:id/invitations" element={<InviteDesk />} />
                <Route path="/classes/:id/slips" element={<ClassSlips />} />
                <Route path="/classes/:id/work" element={<AssignmentDesk />} />
                <Route path="/classes/:id/work/new" element={<GiveDesk />} />
                <Route path="/classes/:id/work/:assignment" element={<GiveDesk />} />
                <Route path="/classes/:id/marking" element={<MarkingDesk />} />
                <Route path="/classes/:id/acknowledged" element={<AcknowledgedDesk />} />
                <Route path="/classes/:id/activity" element={<ActivityDesk />} />
                <Route path="/classes/:id/scores" element={<ScoreDesk />} />
                <Route path="/classes/:id/close" element={<ClosingDesk />} />
                <Route path="/classes/:id/bin" element={<BinDesk />} />
                <Route path="/classes/:id/tidy" element={<TidyDesk />} />
                <Route path="/classes/:id/past" element={<PastDesk />} />
                <Route path="/classes/:id/shelf" element={<ShelfDesk />} />
                <Route path="/classes/:id/roll-over" element={<RolloverDesk />} />
                <Route path="/loft" element={<Loft me={me.data} />} />
                <Route path="/audit" element={<AuditTrail />} />
              </>
            ) : (
              <>
                <Route path="/" element={<StudentToday />} />
                <Route path="/classes/:id" element={<StudentClass />} />
                <Route path="/classes/:id/bin" element={<BinDesk />} />
              </>
            )}
            <Route
              path="*"
              element={
                <Desk title="Nothing here">
                  <Empty title="There is no such page.">Go back, or use the year line at the top.</Empty>
                </Desk>
              }
            />
          </Routes>
        </Shell>
      </TypedProvider>
    </KeysProvider>
  );
}
