using System.Security.Cryptography;
using SpringLoft.App.Plans;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.People;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Rosters;

/// <summary>A student who gave the code and waits for a yes.</summary>
public sealed record WaitingView(PersonId Id, string SortName, string? Grade, Instant Since);

/// <summary>A class's join code.</summary>
/// <param name="Code">Null if the class has none.</param>
/// <param name="Most">How many may join by it; null for any number.</param>
/// <param name="Waits">True if who joins waits for a yes.</param>
/// <param name="Shut">Why it lets nobody in any more; null if it does.</param>
public sealed record JoinCodeView(string? Code, Instant? ExpiresAt, int? Most, int Used, bool Waits, string? Shut, IReadOnlyList<WaitingView> Waiting);

/// <summary>What came of giving a code.</summary>
/// <param name="Waits">True if the teacher says yes first.</param>
/// <param name="IsOpen">False for a class that is not open yet: it is seen when it opens.</param>
public sealed record Joined(ClassId Class, string Name, bool Waits, bool IsOpen);

/// <summary>Join codes: shown large in the room, typed by students.</summary>
public sealed class Joining(Premises premises)
{
    /// <summary>Longest that a code lives, in days.</summary>
    public const int MostDays = 60;

    /// <summary>The code of a class, and who waits.</summary>
    public JoinCodeView See(ClassId id) => premises.Db.Read(c =>
    {
        var waiting = JoinStore.Waiting(c, id);
        var people = PersonStore.Find(c, waiting.Select(w => w.Person)).ToDictionary(p => p.Id);
        var list = waiting.Select(w => new WaitingView(w.Person, people[w.Person].Name.Sort, people[w.Person].Grade, w.At)).ToList();
        return JoinStore.OfClass(c, id) is { } j ? new JoinCodeView(j.Code, j.ExpiresAt, j.Most, j.Used, j.Waits, JoinCode.Shut(j.Fact, premises.Clock.Now)?.What, list) : new JoinCodeView(null, null, null, 0, false, null, list);
    });

    /// <summary>Makes a code, or a new one: the one before is dead.</summary>
    /// <param name="days">How long it lives.</param>
    public void Renew(Caller by, ClassId id, int days, int? most, bool waits)
    {
        if (days is < 1 or > MostDays) throw new RefusedException("code-days", $"A join code can't live {days} days.", $"Choose 1 to {MostDays}.", "days");
        if (most is < 1 or > 1000) throw new RefusedException("code-most", $"{most} can't join by a code.", "Choose 1 to 1,000, or leave it open.", "most");
        premises.Db.Write(c =>
        {
            var k = ClassGate.Demand(c, by, id, Act.ManageRoster).NotArchived().Class;
            if (k.Kind != WorkspaceKind.Class) throw new RefusedException("department-students", "A department's members are staff.", "Enroll them from the directory.");
            var now = premises.Clock.Now;
            JoinStore.Put(c, new JoinCodeRow { ClassId = id, Code = JoinCode.Make(RandomNumberGenerator.GetInt32), MadeAt = now, ExpiresAt = now + Duration.FromDays(days), Most = most, Waits = waits });
            Premises.Add(c, by, now, new("made join code", "class", id.Value, id, $"for {days} days{(most is null ? "" : $", for {most}")}{(waits ? ", with a yes" : "")}"));
        });
    }

    /// <summary>Takes the code away; who waits still waits.</summary>
    public void Stop(Caller by, ClassId id) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.ManageRoster);
        JoinStore.Remove(c, id);
        Premises.Add(c, by, premises.Clock.Now, new("took join code away", "class", id.Value, id, ""));
    });

    /// <summary>Says yes or no to one who waits.</summary>
    public void Answer(Caller by, ClassId id, PersonId person, bool yes) => premises.Db.Write(c =>
    {
        var k = ClassGate.Demand(c, by, id, Act.ManageRoster).NotArchived().Class;
        if (!JoinStore.WaitNoLonger(c, id, person)) throw Refusals.NotFound("student who waits");
        var name = PersonStore.Find(c, person)!.Name.Display;
        if (yes) Enter(c, by, k, person, name);
        else Premises.Add(c, by, premises.Clock.Now, new("said no to a join", "person", person.Value, id, name));
    });

    /// <summary>A student gives a code.</summary>
    /// <exception cref="RefusedException"><c>code-wrong</c>, the same for a code that is unknown or of a class that is archived; <c>code-slow</c> after several wrong ones; <c>code-expired</c>, <c>code-used-up</c>.</exception>
    public Joined Join(Caller by, string? typed)
    {
        var text = Refusals.NotLonger(typed?.Trim() ?? "", "code", "The code", 40);
        if (by.Role != SchoolRole.Student) throw new RefusedException("code-staff", "Join codes are for students.", "Ask the lead teacher to enroll you as co-teacher.", "code");
        // What is wrong is counted in a transaction of its own: the refusal must not roll it back.
        var (joined, refusal) = premises.Db.Write(c => Try(c, by, text));
        return joined ?? throw new RefusedException(refusal!);
    }

    private (Joined? Joined, Refusal? Refusal) Try(IDbConnection c, Caller by, string text)
    {
        var now = premises.Clock.Now;
        var (wrong, shut) = JoinStore.Tries(c, by.Id);
        if (shut is { } until && now < until)
            return (null, new("code-slow", $"Too many wrong codes: wait {Math.Ceiling((until - now).TotalSeconds)} s.", "Look at the code once more; ask your teacher.", "code"));
        var j = JoinCode.Read(text) is { } code ? JoinStore.ByCode(c, code) : null;
        var k = j is null ? null : ClassStore.Find(c, j.ClassId);
        if (j is null || k is null || k.State == ClassState.Archived)
        {
            var wait = SignInRules.WaitAfter(wrong + 1);
            JoinStore.SetTries(c, by.Id, wrong + 1, wait > Duration.Zero ? now + wait : null);
            if (wait > Duration.Zero) Premises.Add(c, by, now, new("slowed down join codes", "person", by.Id.Value, null, $"{wrong + 1} wrong codes in a row"));
            return (null, new("code-wrong", $"“{text}” is no join code.", "It has eight letters and numbers, like FHKM-3479. Capitals or not makes no difference.", "code"));
        }
        JoinStore.SetTries(c, by.Id, 0, null);
        var here = RosterStore.Member(c, k.Id, by.Id);
        if (here is { LeftAt: null }) return (new(k.Id, k.Name, false, k.State == ClassState.Open), null);
        if (JoinCode.Shut(j.Fact, now) is { } over) return (null, over);
        // Whom a teacher took off does not come back by the code alone.
        if (j.Waits || here is not null)
        {
            JoinStore.Wait(c, k.Id, by.Id, now);
            Premises.Add(c, by, now, new("waits to join", "person", by.Id.Value, k.Id, by.Name));
            return (new(k.Id, k.Name, true, k.State == ClassState.Open), null);
        }
        Enter(c, by, k, by.Id, by.Name);
        return (new(k.Id, k.Name, false, k.State == ClassState.Open), null);
    }

    private void Enter(IDbConnection c, Caller by, ClassRow k, PersonId person, string name)
    {
        var now = premises.Clock.Now;
        RosterStore.Put(c, k.Id, person, ClassRole.Student, now, EnrolledBy.Code, RosterDesk.SeesFrom(k, ClassRole.Student, false, now));
        JoinStore.Count(c, k.Id);
        Settings.Unfold(c, k);
        Premises.Add(c, by, now, new("joined by code", "person", person.Value, k.Id, name));
    }
}
