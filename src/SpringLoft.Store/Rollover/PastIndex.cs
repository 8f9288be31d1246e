using Microsoft.Data.Sqlite;
using SpringLoft.Core.Rollover;

namespace SpringLoft.Store.Rollover;

/// <summary>Which thing of a class.</summary>
public readonly record struct PastKey(PastKind Kind, long Id);

/// <summary>
/// The words of what teachers set up, in all years: an index beside the database, in a file of its own. It holds names,
/// and which word stands in what, but no text; it is made anew whenever it is missing, and nothing is lost with it.
/// </summary>
public sealed class PastIndex : IDisposable
{
    // Made anew by another program version where its shape has changed.
    private const int Shape = 1;

    // A word in the title says more than the same word somewhere in the text.
    private const double TitleWeight = 8;
    private const int MostWords = 12;
    private readonly string path;
    private readonly Lock turn = new();
    private SqliteConnection connection;

    /// <param name="path">The file; made if it is not there, and anew if it can't be read.</param>
    public PastIndex(string path)
    {
        Rows.TypeHandlers.Register();
        this.path = path;
        try { connection = Open(path); }
        catch (SqliteException e) when (IsDamaged(e)) { connection = Anew(); }
    }

    /// <summary>What is in it, with what each looked like when it was read.</summary>
    public IReadOnlyDictionary<PastKey, string> Stamps()
    {
        return Try(() => connection.Query<(long, long, string)>("SELECT kind, thing_id, stamp FROM thing").ToDictionary(x => new PastKey((PastKind)x.Item1, x.Item2), x => x.Item3));
    }

    /// <summary>Takes things in, or takes them in anew, and lets go of others: together.</summary>
    public void Change(IEnumerable<PastEntry> add, IEnumerable<PastKey> drop)
    {
        Try(() =>
        {
            using var together = connection.BeginTransaction();
            foreach (var key in drop) Drop(key);
            foreach (var e in add)
            {
                Drop(e.Key);
                var row = connection.ExecuteScalar<long>("INSERT INTO thing(kind, thing_id, class_id, stamp) VALUES(@kind, @Id, @class, @Stamp) RETURNING id", new { kind = (int)e.Key.Kind, e.Key.Id, @class = e.Class.Value, e.Stamp });
                connection.Execute("INSERT INTO words(rowid, title, body) VALUES(@row, @Title, @Body)", new { row, e.Title, e.Body });
            }
            together.Commit();
            return true;
        });
    }

    /// <summary>What has every word that is asked for, or one that begins with it, the nearest first.</summary>
    /// <param name="find">As a person types it.</param>
    /// <param name="classes">Where to look.</param>
    public IReadOnlyList<(PastKey Key, ClassId Class)> Find(string find, IEnumerable<ClassId> classes, int most)
    {
        if (Expression(find) is not { } match) return [];
        return Try(() => connection.Query<(long, long, long)>(
                """
                SELECT t.kind, t.thing_id, t.class_id FROM words w JOIN thing t ON t.id = w.rowid
                WHERE words MATCH @match AND t.class_id IN (SELECT value FROM json_each(@classes))
                ORDER BY bm25(words, @weight, 1.0), t.class_id DESC, t.kind, t.thing_id LIMIT @most
                """, new { match, classes = System.Text.Json.JsonSerializer.Serialize(classes.Select(k => k.Value)), weight = TitleWeight, most })
            .Select(x => (new PastKey((PastKind)x.Item1, x.Item2), new ClassId(x.Item3))).ToList());
    }

    /// <summary>The words of what is typed: runs of letters, marks on them and figures.</summary>
    public static IReadOnlyList<string> WordsOf(string find) =>
        [.. string.Concat(Whole(find).Normalize(System.Text.NormalizationForm.FormC).Select(x => char.IsLetterOrDigit(x) || char.IsSurrogate(x) ? x : ' ')).Split(' ', StringSplitOptions.RemoveEmptyEntries).Take(MostWords)];

    public void Dispose() => connection.Dispose();

    // Half a sign is none: it has no normal form.
    private static string Whole(string text) => string.Concat(text.EnumerateRunes());

    // Each word in quotes: nothing that is typed is a sign of the index's own language.
    private static string? Expression(string find) => WordsOf(find) is { Count: > 0 } words ? string.Join(" AND ", words.Select(w => $"\"{w}\"*")) : null;

    private void Drop(PastKey key)
    {
        var id = connection.ExecuteScalar<long?>("DELETE FROM thing WHERE kind = @kind AND thing_id = @Id RETURNING id", new { kind = (int)key.Kind, key.Id });
        if (id is not null) connection.Execute("DELETE FROM words WHERE rowid = @id", new { id });
    }

    // It is only an index: where its file is damaged a new one is begun, and read again by and by.
    private T Try<T>(Func<T> act)
    {
        lock (turn)
        {
            try { return act(); }
            catch (SqliteException e) when (IsDamaged(e))
            {
                connection.Dispose();
                connection = Anew();
                return act();
            }
        }
    }

    private SqliteConnection Anew()
    {
        foreach (var part in (string[])["", "-wal", "-shm"]) File.Delete(path + part);
        return Open(path);
    }

    // SQLITE_CORRUPT and SQLITE_NOTADB, as the list of result codes of SQLite has them.
    private static bool IsDamaged(SqliteException e) => e.SqliteErrorCode is 11 or 26;

    private static SqliteConnection Open(string path)
    {
        var c = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = path, Pooling = false }.ToString());
        try
        {
            c.Open();
            c.Execute("PRAGMA journal_mode = WAL; PRAGMA synchronous = NORMAL; PRAGMA secure_delete = ON");
            if (c.ExecuteScalar<long>("PRAGMA user_version") != Shape)
                c.Execute(
                    $"""
                    DROP TABLE IF EXISTS thing;
                    DROP TABLE IF EXISTS words;
                    CREATE TABLE thing(id INTEGER PRIMARY KEY, kind INTEGER NOT NULL, thing_id INTEGER NOT NULL, class_id INTEGER NOT NULL, stamp TEXT NOT NULL, UNIQUE(kind, thing_id));
                    CREATE VIRTUAL TABLE words USING fts5(title, body, content='', contentless_delete=1, tokenize='unicode61 remove_diacritics 2', prefix='2 3');
                    PRAGMA user_version = {Shape};
                    """);
            return c;
        }
        catch
        {
            c.Dispose();
            throw;
        }
    }
}

/// <summary>What the index takes in of a thing.</summary>
/// <param name="Stamp">Changes whenever its words do.</param>
public sealed record PastEntry(PastKey Key, ClassId Class, string Stamp, string Title, string Body);
