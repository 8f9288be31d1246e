using SpringLoft.App.People;
using SpringLoft.Core.Letters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>A file that a home opens with its code.</summary>
/// <param name="OfNotice">Its number among the files of a notice; null for the thing itself that is asked about.</param>
public sealed record AtHomeFile(long? OfNotice, string Name);

/// <summary>What a home reads that has the code for it.</summary>
/// <param name="Student">The given name alone.</param>
/// <param name="Text">CommonMark, of a page or a notice; null for a file or link.</param>
/// <param name="Files">The file that is asked about, or those with the notice.</param>
/// <param name="SaidBy">Who acknowledged it, as they wrote it; null while it is wanted.</param>
public sealed record AtHomeView(string School, string ClassName, string Student, string AskedBy, string? Title, string? Text, string? Url, IReadOnlyList<AtHomeFile> Files, LocalDate? Until, string? SaidBy, LocalDate? SaidOn);

/// <summary>Wrong codes from homes, counted apart from wrong passwords: whoever is slowed down here can still sign in.</summary>
public sealed record HomeGuesses(GuessLimits Limits)
{
    /// <summary>What a code opens; one that opens nothing is counted.</summary>
    /// <param name="network">Where it is asked from.</param>
    /// <exception cref="RefusedException"><c>home-code</c>, <c>home-slow</c>.</exception>
    internal T Opened<T>(string network, Func<T?> find) where T : class
    {
        if (!Limits.MayTry(network)) throw new RefusedException("home-slow", "Too many wrong codes came from there.", "Wait some minutes, then try again.", "code");
        if (find() is { } found) return found;
        Limits.Wrong(network);
        throw new RefusedException("home-code", "This is no code that opens anything now.", "Look at it once more, or ask the school.", "code");
    }
}

/// <summary>Acknowledgement at home: by an address and a code, without an account, of one thing for one student.</summary>
public sealed class AtHome(Premises premises, HomeGuesses guesses)
{
    /// <summary>What a code opens.</summary>
    /// <param name="network">Where it is asked from: wrong codes are counted by it.</param>
    /// <exception cref="RefusedException"><c>home-code</c>: it opens nothing, whatever the reason; <c>home-slow</c> after too many that did not.</exception>
    public AtHomeView See(string? code, string network) => premises.Db.Read(c =>
    {
        var o = Opened(c, code, network);
        var row = o.Asking.ItemId is { } id ? ItemStore.Find(c, o.At.Class.Id, id) : null;
        var text = row is null ? o.Asking.Title : row.Kind == ItemKind.Page ? Read(row.Sha256!) : null;
        var said = AskingStore.SaidBy(c, o.Asking.Id, o.Student.PersonId) is { HomeWording: { } w, HomeAt: { } at } s && w >= o.Asking.Wording ? s : null;
        List<AtHomeFile> files = row is null ? [.. OfNotice(c, o.Asking).Select(f => new AtHomeFile(f.Id, f.Name))] : row.Kind == ItemKind.File ? [new(null, row.Name)] : [];
        return new AtHomeView(Store.Naming.SchoolStore.Get(c)!.Name, o.At.Class.Name, o.Student.Given, o.Asking.AskedByName, row?.Name, text, row?.Url, files, o.Asking.Until,
            said?.HomeName, said is null ? null : premises.Clock.DateOf(said.HomeAt!.Value));
    });

    /// <summary>Somebody at home says that they have read it; the first of a wording stays.</summary>
    /// <exception cref="RefusedException"><c>home-code</c>, <c>home-slow</c>, <c>missing</c>, <c>too-long</c>.</exception>
    public void Say(string? code, string? name, string network) => premises.Db.Write(c =>
    {
        var o = Opened(c, code, network);
        var who = Refusals.Needed(name, "name", "Your name", Acknowledgements.MostName);
        var now = premises.Clock.Now;
        if (!AskingStore.SayHome(c, o.Asking.Id, o.Student.PersonId, o.Asking.Wording, who, null, now)) return;
        Premises.Add(c, null, now, new("acknowledged at home", "person", o.Student.PersonId.Value, o.At.Class.Id, $"{o.Student.Name.Display}: {Acknowledgements.Called(o.Asking)}", network));
    });

    /// <summary>The file that a code is about.</summary>
    /// <param name="ofNotice">Of the files with a notice, this one; null for the thing itself.</param>
    public Download Open(string? code, string network, long? ofNotice = null) => premises.Db.Read(c =>
    {
        var o = Opened(c, code, network);
        if (ofNotice is { } number) return OfNotice(c, o.Asking).FirstOrDefault(f => f.Id == number) is { } with ? new Download(with.Name, premises.Files.Open(with.Sha256), with.Size) : throw Refusals.NotFound("file");
        var row = o.Asking.ItemId is { } id && ItemStore.Find(c, o.At.Class.Id, id) is { Kind: ItemKind.File } file ? file : throw Refusals.NotFound("file");
        return new Download(row.FileName, premises.Files.Open(row.Sha256!), row.Size ?? 0);
    });

    // It opens while it is asked of the student's home: in an open class, on its roster, and as long as the student finds it.
    private Asked Opened(IDbConnection c, string? typed, string network) => guesses.Opened(network, () =>
    {
        if (Acknowledging.ReadCode(typed) is { } code && AskingStore.ByCode(c, code) is var (asking, student))
            foreach (var id in AskingStore.ClassesOf(c, asking))
            {
                if (ClassStore.Find(c, id) is not { State: ClassState.Open } k || RosterStore.Member(c, id, student) is not { Role: ClassRole.Student, LeftAt: null } m) continue;
                var a = AskingStore.Find(c, id, asking)!;
                if (a.AskedOf != AskedOf.Student && new AskedReach(c, id).Of(a).Any(x => x.PersonId == student)) return new Asked(a, new(k, Standing.Student, m, GroupStore.Of(c, id, student)), m);
            }
        return null;
    });

    private static IEnumerable<NoticeFileRow> OfNotice(IDbConnection c, AskingRow asking) => asking.NoticeId is { } notice ? NoticeFileStore.Of(c, [notice])[notice] : [];

    private sealed record Asked(AskingRow Asking, ClassAndPlace At, MemberRow Student);

    private string Read(string sha256)
    {
        using var reader = new StreamReader(premises.Files.Open(sha256));
        return reader.ReadToEnd();
    }
}
