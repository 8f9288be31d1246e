import Box from "@mui/material/Box";
import { Navigate, Route, Routes } from "react-router";
import { useMe } from "./api/queries";
import { ProblemError } from "./api/client";
import { showCodes, standing, useStanding } from "./api/standing";
import { AssignmentDesk } from "./desks/Assignments/AssignmentDesk";
import { AuditTrail } from "./desks/Audit/AuditTrail";
import { ClosingDesk } from "./desks/Closing/ClosingDesk";
import { ClosingMatrix } from "./desks/Closing/ClosingMatrix";
import { ClosingPlan } from "./desks/Closing/ClosingPlan";
import { ClosingRun } from "./desks/Closing/ClosingRun";
import { GateDesk } from "./desks/Closing/GateDesk";
import { KeptCopies } from "./desks/Closing/KeptCopies";
import { ShelfDesk } from "./desks/Closing/ShelfDesk";
import { TakeHomes } from "./desks/Closing/TakeHomes";
import { TidyDesk } from "./desks/Closing/TidyDesk";
import { Loft } from "./desks/Closing/Loft";
import { ChangePassword } from "./desks/People/ChangePassword";
import { SignIn } from "./desks/People/SignIn";
import { RecoveryCodes } from "./desks/People/RecoveryCodes";
import { SecondStep } from "./desks/People/SecondStep";
import { SecondStepDoor, SignOutHere } from "./desks/People/SecondStepDoor";
import { SignedOn } from "./desks/People/SignedOn";
import { SignIns } from "./desks/People/SignIns";
import { DirectoryDesk } from "./desks/People/DirectoryDesk";
import { Duplicates } from "./desks/People/Duplicates";
import { Outbox } from "./desks/People/Outbox";
import { ClassSlips, PeopleSlips } from "./desks/People/Slips";
import { FirstPasswords } from "./desks/Naming/FirstPasswords";
import { NameDesk } from "./desks/Naming/NameDesk";
import { UserNames } from "./desks/Naming/UserNames";
import { PlanDesk } from "./desks/Plans/PlanDesk";
import { PlanPut } from "./desks/Plans/PlanPut";
import { RollMany } from "./desks/Rollover/RollMany";
import { RollRun } from "./desks/Rollover/RollRun";
import { RolloverDesk } from "./desks/Rollover/RolloverDesk";
import { CombinedDesk } from "./desks/Rosters/CombinedDesk";
import { CombinedList } from "./desks/Rosters/CombinedList";
import { DeliveryDesk } from "./desks/Rosters/DeliveryDesk";
import { DeliveryList } from "./desks/Rosters/DeliveryList";
import { GroupDesk } from "./desks/Rosters/GroupDesk";
import { InviteDesk } from "./desks/Rosters/InviteDesk";
import { JoinCodeDesk } from "./desks/Rosters/JoinCodeDesk";
import { AcceptInvitation, JoinClass } from "./desks/Rosters/JoinPages";
import { RosterDesk } from "./desks/Rosters/RosterDesk";
import { RulesDesk } from "./desks/School/RulesDesk";
import { BinDesk } from "./desks/Workspaces/BinDesk";
import { Departments } from "./desks/Workspaces/Departments";
import { MakeClass } from "./desks/Workspaces/MakeClass";
import { MakeMany } from "./desks/Workspaces/MakeMany";
import { MyClasses } from "./desks/Workspaces/MyClasses";
import { SeeAs } from "./desks/Workspaces/SeeAs";
import { SharedThings } from "./desks/Workspaces/SharedThings";
import { StudentClass } from "./desks/Workspaces/StudentClass";
import { WorkspaceDesk } from "./desks/Workspaces/WorkspaceDesk";
import { YearDesk } from "./desks/Years/YearDesk";
import { YearBoard } from "./desks/Years/YearBoard";
import { Desk, Empty } from "./parts/Desk";
import { KeysProvider } from "./parts/keys";
import { Problem } from "./parts/Problem";
import { TypedProvider } from "./parts/typed";
import { Doorkeeper } from "./shell/Doorkeeper";
import { Shell } from "./shell/Shell";

/** Which desk stands at which address, and for whom. */
export function App() {
  const me = useMe();
  const { ended, codes } = useStanding();
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
            <Route path="/sign-ins" element={<SignIns />} />
            <Route path="/signed-on" element={<SignedOn />} />
            {staff ? (
              <>
                <Route path="/" element={<YearBoard me={me.data} />} />
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
                    <Route path="/plan/rules" element={<RulesDesk me={me.data} />} />
                  </>
                )}
                <Route path="/plan/departments" element={<Departments me={me.data} />} />
                <Route path="/set-up/many" element={<MakeMany />} />
                <Route path="/set-up" element={<MakeClass me={me.data} />} />
                <Route path="/enroll/directory" element={<DirectoryDesk me={me.data} />} />
                <Route path="/enroll/combined" element={<CombinedList me={me.data} />} />
                <Route path="/enroll/combined/:id" element={<CombinedDesk me={me.data} />} />
                <Route path="/enroll" element={<YearBoard me={me.data} season="roster" />} />
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
                <Route path="/classes/:id/close" element={<ClosingDesk />} />
                <Route path="/classes/:id/bin" element={<BinDesk />} />
                <Route path="/classes/:id/tidy" element={<TidyDesk />} />
                <Route path="/classes/:id/shelf" element={<ShelfDesk />} />
                <Route path="/classes/:id/roll-over" element={<RolloverDesk />} />
                <Route path="/loft" element={<Loft me={me.data} />} />
                <Route path="/audit" element={<AuditTrail />} />
              </>
            ) : (
              <>
                <Route path="/" element={<MyClasses />} />
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
