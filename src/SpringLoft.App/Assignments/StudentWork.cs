using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Assignments;

/// <summary>A page in one's own work as it is written.</summary>
/// <param name="Text">CommonMark.</param>
/// <param name="Seen">Which text it is: to be sent along with a change.</param>
public sealed record OwnPage(string Title, string Text, string Seen);

/// <summary>A student's own work: put files, links and pages in, hand in, take back.</summary>
public sealed class StudentWork(Premises premises)
{
    /// <summary>Streams a file into one's work for an assignment.</summary>
    public async Task<WorkFileView> AddFile(Caller by, ClassId id, AssignmentId assignment, string? name, Stream content, CancellationToken stop)
    {
        var safe = Items.CheckName(name);
        return await Put(by, id, assignment, safe.Name, content, null, stop).ConfigureAwait(false);
    }

    /// <summary>Puts a link into one's work.</summary>
    public async Task<WorkFileView> AddLink(Caller by, ClassId id, AssignmentId assignment, string? title, string? url, CancellationToken stop)
    {
        var address = Items.WebAddress(url);
        var name = Items.PageTitle(title);
        return await Put(by, id, assignment, Handed.LinkFile(name), new MemoryStream(Handed.LinkPage(name, address)), address, stop).ConfigureAwait(false);
    }

    /// <summary>Puts a page that is written in place into one's work.</summary>
    /// <param name="text">CommonMark; shown without any HTML that stands in it.</param>
    public async Task<WorkFileView> AddPage(Caller by, ClassId id, AssignmentId assignment, string? title, string? text, CancellationToken stop)
    {
        var name = Items.PageTitle(title);
        return await Put(by, id, assignment, Handed.PageFile(name), new MemoryStream(Items.PageBytes(text)), null, stop).ConfigureAwait(false);
    }

    /// <summary>The text of a page in one's own work.</summary>
    public OwnPage ReadPage(Caller who, ClassId id, AssignmentId assignment, long file) => premises.Db.Read(c =>
    {
        CheckSees(c, who, id, assignment, Act.HandIn);
        var work = WorkStore.Of(c, assignment, who.Id) ?? throw Refusals.NotFound("work");
        var row = Page(c, work.Id, file);
        if (row.Size > Items.MostText * 4) throw new RefusedException("text-long", $"“{row.Name}” is too long to be written on in place.", "Download it, change it and add it again.");
        using var reader = new StreamReader(premises.Files.Open(row.Sha256));
        return new OwnPage(Handed.TitleOf(row.Name, null), reader.ReadToEnd(), row.Sha256);
    });

    /// <summary>Changes a page in one's work, where it is still the one that was seen.</summary>
    /// <param name="seen">As <see cref="ReadPage"/> gave it.</param>
    public async Task<WorkFileView> ChangePage(Caller by, ClassId id, AssignmentId assignment, long file, string? title, string? text, string? seen, CancellationToken stop)
    {
        var name = Items.PageTitle(title);
        if (text is null) throw new RefusedException("missing", "The text of the page is missing.", "Send the whole text.", "text");
        premises.Db.Read(c => { CheckFiles(c, by, id, assignment); return true; });
        var kept = await FileIntake.TakeIn(premises, new MemoryStream(Items.PageBytes(text)), name, by.Id, id, stop).ConfigureAwait(false);
        return premises.Db.Write(c =>
        {
            CheckFiles(c, by, id, assignment);
            var work = WorkStore.Of(c, assignment, by.Id) ?? throw Refusals.NotFound("work");
            var row = Page(c, work.Id, file);
            var now = premises.Clock.Now;
            ItemStore.AddBlob(c, kept, now);
            var free = Free(c, work.Id, Handed.PageFile(name), file);
            if (!WorkStore.Replace(c, work.Id, file, free, seen ?? "", kept.Sha256, now)) throw Refusals.ChangedMeanwhile("page");
            Activities.Note(c, premises, by, id, Did.Wrote);
            Premises.Add(c, by, now, new("changed own work", "work", work.Id.Value, id, free));
            return View(c, work.Id, file);
        });
    }

    /// <summary>The receipt of one handing-in of one's own, as plain text.</summary>
    public Download Receipt(Caller who, ClassId id, AssignmentId assignment, long turn) => premises.Db.Read(c =>
    {
        var (at, a) = CheckSees(c, who, id, assignment, Act.SeeClass);
        return WorkTurns.ReceiptOf(premises, c, at.Class, a, WorkStore.Of(c, assignment, who.Id) ?? throw Refusals.NotFound("work"), turn);
    });

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
        return work.Row.With(next) with { HandedInAt = now };
    }, (c, work, now) => WorkStore.AddTurn(c, id, work, now));

    /// <summary>Takes back what is not marked yet.</summary>
    public void TakeBack(Caller by, ClassId id, AssignmentId assignment) => Step(by, id, assignment, "took back", Did.Wrote, (work, at, _) =>
    {
        var next = WorkFlow.TakeBack(work.Fact, at);
        return work.Row.With(next) with { HandedInAt = null };
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

    private async Task<WorkFileView> Put(Caller by, ClassId id, AssignmentId assignment, string name, Stream content, string? url, CancellationToken stop)
    {
        premises.Db.Read(c => { CheckFiles(c, by, id, assignment); return true; });
        var file = await FileIntake.TakeIn(premises, content, name, by.Id, id, stop).ConfigureAwait(false);
        return premises.Db.Write(c =>
        {
            CheckFiles(c, by, id, assignment);
            var now = premises.Clock.Now;
            var work = WorkStore.Begin(c, id, assignment, by.Id);
            ItemStore.AddBlob(c, file, now);
            var free = Free(c, work.Id, name, null);
            var made = WorkStore.AddFile(c, work.Id, free, file.Sha256, by.Id, now, url);
            Activities.Note(c, premises, by, id, Did.Wrote);
            Premises.Add(c, by, now, new("added to own work", "work", work.Id.Value, id, free));
            return View(c, work.Id, made);
        });
    }

    private static string Free(IDbConnection c, WorkId work, string name, long? but) =>
        SafeName.Distinct(name, WorkStore.Files(c, work).Where(f => f.Id != but).Select(f => SafeName.Key(f.Name)).ToHashSet(), isFile: true);

    private static WorkFileRow Page(IDbConnection c, WorkId work, long file) =>
        WorkStore.Files(c, work).FirstOrDefault(f => f.Id == file && Handed.KindOf(f.Name, f.Url) == ItemKind.Page) ?? throw Refusals.NotFound("page");

    private static WorkFileView View(IDbConnection c, WorkId work, long file) => WorkFileView.Of(WorkStore.Files(c, work).First(f => f.Id == file));

    private void Step(Caller by, ClassId id, AssignmentId assignment, string act, Did did, Func<(WorkRow Row, WorkFact Fact), WorkSetting, Instant, WorkRow> decide, Action<IDbConnection, WorkId, Instant> note) => premises.Db.Write(c =>
    {
        var (at, a) = CheckSees(c, by, id, assignment, Act.HandIn);
        var row = WorkStore.Begin(c, id, assignment, by.Id);
        var now = premises.Clock.Now;
        var fact = row.Fact(WorkStore.Files(c, row.Id).Count);
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
