using System.Collections.Concurrent;
using System.Text;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Together;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>A page as somebody opens it to write it with others.</summary>
/// <param name="Update">What they lack, as Yjs has it.</param>
/// <param name="Vector">Up to what is known here of each writer: what is newer with them, they send.</param>
/// <param name="MayWrite">False for one who only reads along.</param>
public sealed record OpenedPage(string Title, byte[] Update, byte[] Vector, bool MayWrite);

/// <summary>Somebody who has a page open.</summary>
public sealed record PageReader(PersonId Id, string Name, bool Writes);

/// <summary>
/// Pages that several write at once. What somebody writes goes to the others at once, is kept before it is acknowledged, and is in the
/// page's text, where everybody else reads it, some seconds later. A text that is saved in the ordinary way meanwhile is met, not written over.
/// </summary>
public sealed class WritingTogether(Premises premises)
{
    /// <summary>Most bytes of what is sent at once.</summary>
    public const int MostUpdate = 600_000;

    // What is kept of a text with all that was ever deleted from it.
    private const int MostState = 8 * 1024 * 1024;
    private readonly ConcurrentDictionary<ItemId, Room> rooms = new();

    /// <summary>Told of what the program itself wrote into a page that people have open, because it was saved in another way.</summary>
    public event Action<ItemId, byte[]>? Met;

    /// <summary>Told of a browser that may not read a page any more that it has open.</summary>
    public event Action<ItemId, string>? Dropped;

    /// <summary>Opens a page, or takes it up again after having been cut off.</summary>
    /// <param name="connection">By which the browser is known until it leaves.</param>
    /// <param name="vector">Up to what the asker knows of each writer; null for nothing.</param>
    public OpenedPage Open(Caller who, ClassId id, ItemId item, string connection, byte[]? vector) => In(id, item, () => premises.Db.Read(c => Items.Seen(c, who, id, item, ItemKind.Page)), (room, row) =>
    {
        Meet(room, row);
        var may = premises.Db.Read(c => MayWrite(c, who, id, item)) is null;
        room.Here[connection] = (who, may);
        try { return new OpenedPage(row.Name, vector is null ? room.Text.State() : room.Text.Since(vector), room.Text.Vector(), may); }
        catch (InvalidDataException) { throw Wrong(); }
    });

    /// <summary>Takes in what somebody wrote.</summary>
    /// <param name="pass">Called once it is taken in: passes it on to the others.</param>
    /// <returns>Ends when it is kept.</returns>
    /// <exception cref="RefusedException"><c>item-not-yours</c>, <c>class-archived</c>, <c>run-going</c>, <c>page-update</c>, <c>too-long</c>.</exception>
    public Task Write(Caller by, ClassId id, ItemId item, byte[] update, Action pass) => In(id, item, () => premises.Db.Read(c => Items.Seen(c, by, id, item, ItemKind.Page)), (room, _) =>
    {
        // Asked where it is written, so that nothing gets in between: from the moment a class is being closed its pages stand still.
        if (premises.Db.Read(c => MayWrite(c, by, id, item)) is { } shut) throw shut;
        if (update.Length > MostUpdate) throw TooLong(room.Text.Length);
        try { room.Text.Apply(update); }
        catch (InvalidDataException)
        {
            room.Again();
            throw Wrong();
        }
        room.Bytes += update.Length;
        if (room.Text.Length > Items.MostText || room.Bytes > MostState)
        {
            var length = room.Text.Length;
            room.Again();
            throw TooLong(length);
        }
        room.Since.Add(update);
        room.Writers[by.Id] = by;
        room.Last = by;
        room.DirtyAt ??= premises.Clock.Real;
        pass();
        return room.Keep(update);
    });

    /// <summary>Somebody shut a page, or their browser is gone.</summary>
    public IReadOnlyList<ItemId> Leave(string connection) => [.. rooms.Where(r => r.Value.Here.TryRemove(connection, out _)).Select(r => r.Key)];

    /// <summary>Who has a page open, each once.</summary>
    public IReadOnlyList<PageReader> Here(ItemId item) => rooms.TryGetValue(item, out var room) ? [.. room.Here.Values.GroupBy(p => p.Who.Id).Select(g => new PageReader(g.Key, g.First().Who.Name, g.Any(p => p.Writes))).OrderBy(p => p.Name, StringComparer.CurrentCulture)] : [];

    /// <summary>Keeps what was written, and writes into the pages' texts what has waited long enough; whoever waits for it is told.</summary>
    public void Go()
    {
        Keep();
        var now = premises.Clock.Real;
        List<Exception>? troubles = null;
        foreach (var room in rooms.Values)
        {
            // What is the matter with one page keeps no other from its text.
            try
            {
                lock (room) Look(room, now);
            }
            catch (Exception e) { (troubles ??= []).Add(e); }
        }
        if (troubles is not null) throw new AggregateException(troubles);
    }

    private void Look(Room room, Instant now)
    {
        if (room.Gone) return;
        if (room.DirtyAt is { } since && now - since >= PageVersions.SettlesAfter)
        {
            // Where it does not succeed it is tried again as long after.
            room.DirtyAt = now;
            Settle(room);
        }
        if (now - room.LookedAt >= PageVersions.SettlesAfter)
        {
            room.LookedAt = now;
            if (room.DirtyAt is null && premises.Db.Read(c => ItemStore.Find(c, room.Class, room.Item)) is { } row) Meet(room, row);
            foreach (var (connection, (who, _)) in room.Here)
                if (!premises.Db.Read(c => StillReads(c, who, room)) && room.Here.TryRemove(connection, out _)) Dropped?.Invoke(room.Item, connection);
        }
        // Nobody has it open and nothing waits: it is read again when somebody comes.
        if (room.Here.IsEmpty && room is { DirtyAt: null, Waits: false }) Forget(room);
    }

    // Who left the class, may not see the folder any more, or whose sign-in has ended, is told nothing more. To read along keeps no sign-in awake.
    private bool StillReads(IDbConnection c, Caller who, Room room)
    {
        if (PersonStore.Find(c, who.Id) is not { Active: true } p) return false;
        if (who.From is { } from && !SessionStore.Of(c, who.Id).Any(s => s.Id == from.Session && SessionRules.GoesOn(s.BegunAt, s.SeenAt, premises.Clock.Real, SessionStore.Limits(c)))) return false;
        try { Items.Seen(c, who with { Role = p.Role }, room.Class, room.Item, ItemKind.Page); }
        catch (RefusedException) { return false; }
        return true;
    }

    /// <summary>Writes into their texts what was written so far in the pages of a class, or in all.</summary>
    public void Settle(ClassId? id = null)
    {
        Keep();
        foreach (var room in rooms.Values.Where(r => id is null || r.Class == id))
            lock (room)
                if (room is { Gone: false, DirtyAt: not null }) Settle(room);
    }

    /// <summary>Do several write a page, as far as the rule of its folders goes: may a student who finds it change what another put in?</summary>
    internal static bool IsShared(IDbConnection c, ClassId id, IReadOnlyList<FolderId> folders)
    {
        var all = GroupStore.OfClass(c, id).Select(g => g.Id).ToHashSet();
        return folders.Count > 0 && new Access(new Viewer(default, Standing.Student, true, ClassState.Open, AfterArchive.View, all), FolderStore.OfClass(c, id).Select(f => f.Fact)).MayRename(folders, own: false);
    }

    // One transaction for all that came in the meantime: whoever writes waits for it, nobody else.
    private void Keep()
    {
        var taken = rooms.Values.Select(r => (Room: r, Waiting: r.Take())).Where(x => x.Waiting.Count > 0).ToList();
        if (taken.Count == 0) return;
        try
        {
            premises.Db.Write(c =>
            {
                foreach (var (room, waiting) in taken)
                    if (ItemStore.Find(c, room.Class, room.Item) is not null)
                        foreach (var (update, _) in waiting) PageDocStore.Add(c, room.Item, update);
            });
        }
        catch (Exception e)
        {
            foreach (var (_, done) in taken.SelectMany(x => x.Waiting)) done.TrySetException(e);
            throw;
        }
        foreach (var (_, done) in taken.SelectMany(x => x.Waiting)) done.TrySetResult();
    }

    // The texts come together where Yjs says so: what was saved otherwise is a change of the text that stood there before.
    private void Meet(Room room, ItemRow row)
    {
        if (row.Sha256 == room.OfText) return;
        var theirs = new SharedText(room.Settled);
        var update = theirs.Become(Read(row.Sha256!));
        room.Text.Apply(update);
        (room.Settled, room.OfText, room.BegunAt) = (theirs.State(), row.Sha256!, null);
        premises.Db.Write(c =>
        {
            var since = PageDocStore.Since(c, room.Item);
            PageDocStore.Settle(c, room.Item, room.Settled, room.OfText, null);
            foreach (var s in since) PageDocStore.Add(c, room.Item, s);
        });
        Met?.Invoke(room.Item, update);
    }

    private void Settle(Room room)
    {
        if (premises.Db.Read(c => ItemStore.Find(c, room.Class, room.Item)) is not { } seen)
        {
            room.DirtyAt = null;
            return;
        }
        Meet(room, seen);
        var (text, state, writers, last) = (room.Text.Text, room.Text.State(), room.Writers.Values.ToList(), room.Last!);
        var bytes = Items.PageBytes(text);
        var file = premises.Files.Make(to => to.Write(bytes));
        var done = premises.Db.Write(c =>
        {
            var now = premises.Clock.Now;
            // Changed in this very moment: met and written the next time.
            if (ItemStore.Find(c, room.Class, room.Item) is not { } row || row.Sha256 != room.OfText) return false;
            if (file.Sha256 != row.Sha256)
            {
                ItemStore.AddBlob(c, file, now);
                if (PageVersions.GoesOn(room.BegunAt, row.ChangedAt, now)) ItemStore.WriteOn(c, row, file.Sha256, last.Id, now);
                else
                {
                    ItemStore.Replace(c, row, row.Name, file.Sha256, row.Version, last.Id, now);
                    room.BegunAt = now;
                    Premises.Add(c, last, now, new("writes page together", "item", room.Item.Value, room.Class, row.Name));
                }
                PageDocStore.AddWriters(c, room.Item, writers.Select(w => w.Id));
                foreach (var w in writers) Activities.Note(c, premises, w, room.Class, Did.Wrote);
            }
            PageDocStore.Settle(c, room.Item, state, file.Sha256, room.BegunAt);
            return true;
        });
        if (!done) return;
        (room.Settled, room.OfText, room.DirtyAt, room.Bytes) = (state, file.Sha256, null, state.Length);
        room.Since.Clear();
        room.Writers.Clear();
    }

    private static RefusedException? MayWrite(IDbConnection c, Caller by, ClassId id, ItemId item)
    {
        try { Items.CheckMay(c, by, id, item, remove: false); }
        catch (RefusedException e) { return e; }
        return RunStore.IsGoing(c, id) ? new RefusedException("run-going", "This class is being closed or worked on just now.", "Wait until that has ended; what you typed waits here.") : null;
    }

    private T In<T>(ClassId id, ItemId item, Func<ItemRow> find, Func<Room, ItemRow, T> act)
    {
        while (true)
        {
            var row = find();
            var room = rooms.GetOrAdd(item, _ => new Room(id, item));
            lock (room)
            {
                // Given up in this very moment: the next one is another.
                if (room.Gone) continue;
                try { if (!room.Loaded) Load(room, row); }
                catch
                {
                    Forget(room);
                    throw;
                }
                return act(room, row);
            }
        }
    }

    private void Load(Room room, ItemRow row)
    {
        var (kept, since) = premises.Db.Read(c => (PageDocStore.Find(c, room.Item), PageDocStore.Since(c, room.Item)));
        if (kept is null)
        {
            var first = new SharedText();
            first.Become(Read(row.Sha256!));
            kept = new() { State = first.State(), OfText = row.Sha256! };
            premises.Db.Write(c => PageDocStore.Settle(c, room.Item, kept.State, kept.OfText, null));
        }
        (room.Settled, room.OfText, room.BegunAt, room.Bytes, room.LookedAt) = (kept.State, kept.OfText, kept.BegunAt, kept.State.Length, premises.Clock.Real);
        room.Since.AddRange(since);
        room.Again();
        // Kept and not yet in the page's text, because the program ended in between: by whoever changed it last.
        if (since.Count > 0)
        {
            var by = row.ChangedBy ?? row.AddedBy;
            room.Last = premises.Db.Read(c => PersonStore.Find(c, by)) is { } p ? new Caller(p.Id, p.Role, p.Name.Display) : null;
            room.DirtyAt = premises.Clock.Real;
        }
        room.Loaded = true;
    }

    private void Forget(Room room)
    {
        room.Gone = true;
        rooms.TryRemove(new(room.Item, room));
    }

    private string Read(string sha256)
    {
        using var reader = new StreamReader(premises.Files.Open(sha256), Encoding.UTF8);
        // An empty page is kept as one empty line.
        return reader.ReadToEnd() is var text && text == "\n" ? "" : text;
    }

    private static RefusedException Wrong() => new("page-update", "What your browser sent can't be read as part of this page.", "Reload the page; what you typed last may have to be typed again.");

    private static RefusedException TooLong(int length) => new("too-long", $"With that the page would have {length} characters.", $"Keep it to {Items.MostText}.", "text");

    private sealed class Room(ClassId id, ItemId item)
    {
        private readonly List<(byte[] Update, TaskCompletionSource Done)> waiting = [];

        internal ClassId Class { get; } = id;
        internal ItemId Item { get; } = item;
        internal bool Loaded { get; set; }
        internal bool Gone { get; set; }
        internal SharedText Text { get; private set; } = null!;

        /// <summary>As it was when it stood in the page's text last, which is the one with that digest.</summary>
        internal byte[] Settled { get; set; } = [];
        internal string OfText { get; set; } = "";
        internal Instant? BegunAt { get; set; }

        /// <summary>Since when there is something that is not in the page's text.</summary>
        internal Instant? DirtyAt { get; set; }
        internal Instant LookedAt { get; set; }
        internal long Bytes { get; set; }
        internal List<byte[]> Since { get; } = [];
        internal Dictionary<PersonId, Caller> Writers { get; } = [];
        internal Caller? Last { get; set; }
        internal ConcurrentDictionary<string, (Caller Who, bool Writes)> Here { get; } = new();

        internal bool Waits { get { lock (waiting) return waiting.Count > 0; } }

        /// <summary>From what is known to be right.</summary>
        internal void Again()
        {
            Text = new SharedText(Settled);
            foreach (var s in Since) Text.Apply(s);
            Bytes = Settled.Length + Since.Sum(s => (long)s.Length);
        }

        internal Task Keep(byte[] update)
        {
            var done = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
            lock (waiting) waiting.Add((update, done));
            return done.Task;
        }

        internal List<(byte[] Update, TaskCompletionSource Done)> Take()
        {
            lock (waiting)
            {
                List<(byte[], TaskCompletionSource)> all = [.. waiting];
                waiting.Clear();
                return all;
            }
        }
    }
}
