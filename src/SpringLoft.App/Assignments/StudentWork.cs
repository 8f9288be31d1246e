using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Assignments;

/// <summary>A student's own work: put files in, hand in, take back.</summary>
public sealed class StudentWork(Premises premises)
{
    /// <summary>Streams a file into one's work for an assignment.</summary>
    public async Task<WorkFileView> AddFile(Caller by, ClassId id, AssignmentId assignment, string? name, Stream content, CancellationToken stop)
    {
        var safe = Items.CheckName(name);
        premises.Db.Read(c => { CheckFiles(c, by, id, assignment); return true; });
        var file = await FileIntake.TakeIn(premises, content, safe.Name, by.Id, id, stop).ConfigureAwait(false);
        return premises.Db.Write(c =>
        {
            CheckFiles(c, by, id, assignment);
            var now = premises.Clock.Now;
            var work = WorkStore.Begin(c, id, assignment, by.Id);
            ItemStore.AddBlob(c, file, now);
            var free = SafeName.Distinct(safe.Name, WorkStore.Files(c, work.Id).Select(f => SafeName.Key(f.Name)).ToHashSet(), isFile: true);
            var made = WorkStore.AddFile(c, work.Id, free, file.Sha256, by.Id, now);
            Activities.Note(c, premises, by, id, Did.Wrote);
            Premises.Add(c, by, now, new("added to own work", "work", work.Id.Value, id, free));
            return new WorkFileView(made, free, file.Size, now);
        });
    }

    /// <summary>Takes a file out of one's work, while one holds it.</summary>
    public void RemoveFile(Caller by, ClassId id, AssignmentId assignment, long file) => premises.Db.Write(c =>
    {
        CheckFiles(c, by, id, assignment);
        var work = WorkStore.Of(c, assignment, by.Id) ?? throw Refusals.NotFound("work");
        var row = WorkStore.Files(c, work.Id).FirstOrDefault(f => f.Id == file) ?? throw Refusals.NotFound("file");
        WorkStore.RemoveFile(c, work.Id, file);
        Premises.Add(c, by, premises.Clock.Now, new("took out of own work", "work", work.Id.Value, id, row.Name));
    });

    /// <summary>Hands in: from now on the teacher holds the work.</summary>
    public void HandIn(Caller by, ClassId id, AssignmentId assignment) => Step(by, id, assignment, "handed in", Did.HandedIn, (work, at, now) =>
    {
        var next = WorkFlow.HandIn(work.Fact, at);
        return work.Row with { State = next.State, Score = next.Score, HandedInAt = now };
    }, (c, work, now) => WorkStore.AddTurn(c, id, work, now));

    /// <summary>Takes back what is not marked yet.</summary>
    public void TakeBack(Caller by, ClassId id, AssignmentId assignment) => Step(by, id, assignment, "took back", Did.Wrote, (work, at, _) =>
    {
        var next = WorkFlow.TakeBack(work.Fact, at);
        return work.Row with { State = next.State, HandedInAt = null };
    }, WorkStore.TurnTakenBack);

    /// <summary>Opens a file of one's own work.</summary>
    public Download Open(Caller who, ClassId id, AssignmentId assignment, long file) => premises.Db.Read(c =>
    {
        CheckSees(c, who, id, assignment, Act.HandIn);
        var work = WorkStore.Of(c, assignment, who.Id) ?? throw Refusals.NotFound("work");
        var row = WorkStore.Files(c, work.Id).FirstOrDefault(f => f.Id == file) ?? throw Refusals.NotFound("file");
        return new Download(row.Name, premises.Files.Open(row.Sha256), row.Size);
    });

    /// <summary>Opens a file of one's own work as it was handed in once.</summary>
    public Download OpenTurn(Caller who, ClassId id, AssignmentId assignment, long turn, int position) => premises.Db.Read(c =>
    {
        CheckSees(c, who, id, assignment, Act.SeeClass);
        return WorkTurns.Open(premises, c, (WorkStore.Of(c, assignment, who.Id) ?? throw Refusals.NotFound("work")).Id, turn, position);
    });

    private void Step(Caller by, ClassId id, AssignmentId assignment, string act, Did did, Func<(WorkRow Row, WorkFact Fact), WorkSetting, Instant, WorkRow> decide, Action<IDbConnection, WorkId, Instant> note) => premises.Db.Write(c =>
    {
        var (at, a) = CheckSees(c, by, id, assignment, Act.HandIn);
        var row = WorkStore.Begin(c, id, assignment, by.Id);
        var now = premises.Clock.Now;
        var fact = new WorkFact(row.State, WorkStore.Files(c, row.Id).Count, row.Score, row.ReturnedScore);
        var next = decide((row, fact), Setting(at, a), now);
        if (!WorkStore.Save(c, next)) throw Refusals.ChangedMeanwhile("work");
        note(c, row.Id, now);
        Activities.Note(c, premises, by, id, did);
        Premises.Add(c, by, now, new(act, "work", row.Id.Value, id, a.Title));
    });

    private void CheckFiles(IDbConnection c, Caller by, ClassId id, AssignmentId assignment)
    {
        var (at, a) = CheckSees(c, by, id, assignment, Act.HandIn);
        var row = WorkStore.Of(c, assignment, by.Id);
        WorkFlow.CheckChangeFiles(new(row?.State ?? WorkState.Working, 0, row?.Score), Setting(at, a));
    }

    private static (ClassAndPlace At, AssignmentRow Assignment) CheckSees(IDbConnection c, Caller who, ClassId id, AssignmentId assignment, Act act)
    {
        var at = ClassGate.Demand(c, who, id, act);
        var a = AssignmentStore.Find(c, id, assignment);
        var access = new Access(at.Viewer(who.Id), FolderStore.OfClass(c, id).Select(f => f.Fact));
        PersonId[] given = [.. AssignmentStore.GivenTo(c, id)[assignment]];
        if (a is null || !AssignmentSight.Sees(a.PublishedAt is not null, given, who.Id, access.OfThing(AssignmentStore.Filings(c, id)[assignment]))
            || !AssignmentSight.InTime(a.PublishedAt, at.Member?.SeesFrom, given.Contains(who.Id), WorkStore.Of(c, assignment, who.Id) is not null))
            throw Refusals.NotFound("assignment");
        return (at, a);
    }

    private WorkSetting Setting(ClassAndPlace at, AssignmentRow a) =>
        new(at.Class.State, a.PublishedAt is not null, at.Member?.MayPost ?? false, a.Points, Lateness.StateOf(a.Due, premises.Clock) == DueState.Closed);
}
