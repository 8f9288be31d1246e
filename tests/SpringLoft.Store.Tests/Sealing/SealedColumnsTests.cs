using System.Text;
using Dapper;
using Microsoft.Data.Sqlite;
using SpringLoft.Core;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Letters;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Sealing;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.Store.Tests.Sealing;

/// <summary>What lets somebody in is in no byte of the database file, nor what was deleted.</summary>
public sealed class SealedColumnsTests : StoreTest
{
    // Stands for a key ring: what it seals has no part of the text in it.
    private sealed class Turned(string key = "k") : IDataSeal
    {
        public string Seal(string clear) => $"{key}.{Convert.ToBase64String(Encoding.UTF8.GetBytes(new string([.. clear.Reverse()])))}";

        public string? Open(string kept) => kept.StartsWith($"{key}.", StringComparison.Ordinal) ? new string([.. Encoding.UTF8.GetString(Convert.FromBase64String(kept[2..])).Reverse()]) : null;
    }

    private static readonly string[] Secrets = ["phrase-of-a-slip", "secret-of-the-feed", "secret-of-the-calendar", "address-of-the-shelf", "text-of-a-letter", "secret-of-an-app", "token-of-a-provider", "code-of-a-home", "address-that-stops-letters", Convert.ToHexStringLower("secret-of-the-key-of-the-school."u8)];

    private void Fill(Database db) => db.Write(c =>
    {
        PersonStore.SetPassword(c, Teacher, "hash", mustChange: true, null, At, Secrets[0]);
        FeedStore.Set(c, new FeedRow { Address = "https://records.example/", ClientId = "id", ClientSecret = Secrets[1], YearId = Year, FirstDay = new(2026, 9, 1), LastDay = new(2027, 6, 1) });
        ClassStore.SetCalendar(c, Class, Secrets[2]);
        ShelfStore.Add(c, new ShelfRow { ClassId = Class, Token = Secrets[3], Title = "T", UntilDay = new(2027, 6, 1), MadeAt = At, MadeBy = Teacher }, []);
        LetterStore.Add(c, "a@school.invalid", "A", "S", Secrets[4], At);
        SecondStepStore.BeginApp(c, Teacher, Secrets[5]);
        SessionStore.Begin(c, Teacher, "t", "b", "a", At, new("https://id.example/", "sid", Secrets[6], ShowedStep: false));
        var item = ItemStore.Add(c, Class, new ItemRow { Kind = Core.Workspaces.ItemKind.Link, Name = "L", Url = "https://a.example/", AddedBy = Teacher, AddedAt = At });
        AskingStore.SetCode(c, AskingStore.AskItem(c, item, Core.Workspaces.AskedOf.Home, null, Teacher, At), Teacher, Secrets[7]);
        FamilyStore.SetStopCode(c, FamilyStore.Add(c, null, "Mo", null, "en", null), Secrets[8]);
        SchoolKeyStore.Add(c, new byte[32], Convert.FromHexString(Secrets[9]), At);
    });

    private static void ShouldBeRead(Database db, PersonId teacher, ClassId id) => db.Read(c => new[]
    {
        PersonStore.FirstPhrases(c, [teacher])[teacher].Phrase, FeedStore.Get(c)!.ClientSecret, ClassStore.CalendarSecret(c, id), ShelfStore.Of(c, Secrets[3])?.Token, LetterStore.Newest(c, 1)[0].Text,
        SecondStepStore.App(c, teacher)?.Secret, SessionStore.IdToken(c, SessionStore.Of(c, teacher)[0].Id), AskingStore.CodeOf(c, 1, teacher), FamilyStore.StopCode(c, FamilyStore.All(c).Single().Id), SchoolKeyStore.All(c).Single().Secret is { } key ? Convert.ToHexStringLower(key) : null,
    }).ShouldBe(Secrets);

    private string[] InTheFile() => [.. Secrets.Where(s => Directory.GetFiles(Path.GetDirectoryName(Db.Path)!, "store.db*").Any(f => Bytes(f).AsSpan().IndexOf(Encoding.UTF8.GetBytes(s)) >= 0))];

    private static byte[] Bytes(string path)
    {
        using var file = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
        using var all = new MemoryStream();
        file.CopyTo(all);
        return all.ToArray();
    }

    [Fact]
    public void What_is_written_under_a_seal_is_read_under_it_and_stands_nowhere_in_the_file()
    {
        using var db = new Database(Db.Path, new Turned());
        Fill(db);

        ShouldBeRead(db, Teacher, Class);
        db.Forget();
        InTheFile().ShouldBeEmpty();
    }

    [Fact]
    public void What_stood_there_in_clear_is_sealed_when_the_file_is_opened_and_leaves_no_trace()
    {
        Fill(Db);
        InTheFile().ShouldBe(Secrets, "or this test finds nothing");
        Db.Dispose();

        using var db = new Database(Db.Path, new Turned());

        InTheFile().ShouldBeEmpty();
        ShouldBeRead(db, Teacher, Class);
    }

    [Fact]
    public void Every_column_that_is_sealed_is_known_to_whoever_seals_old_ones()
    {
        Fill(Db);

        foreach (var (table, column) in SealedColumns.All)
            Db.Read(c => c.ExecuteScalar<string>($"SELECT {column} FROM {table} WHERE {column} IS NOT NULL")).ShouldBeOneOf(Secrets);
        SealedColumns.All.Count.ShouldBe(Secrets.Length);
    }

    [Fact]
    public void Without_the_keys_it_is_as_if_nothing_stood_there()
    {
        using (var db = new Database(Db.Path, new Turned())) Fill(db);
        using var other = new Database(Db.Path, new Turned("x"));

        other.Read(c => PersonStore.FirstPhrases(c, [Teacher])[Teacher].Phrase).ShouldBeNull();
        other.Read(c => FeedStore.Get(c)!.ClientSecret).ShouldBe("");
        other.Read(c => LetterStore.Newest(c, 1)[0].Text).ShouldBeNull();
    }

    [Fact]
    public void What_is_deleted_is_overwritten_and_leaves_the_log_too()
    {
        const string said = "something-said-in-confidence";
        Db.Write(c => NoticeStore.Add(c, new NoticeRow { AuthorId = Teacher, Text = said, MadeAt = At, PostedAt = At }, [(Class, null)]));
        bool There() => Directory.GetFiles(Path.GetDirectoryName(Db.Path)!, "store.db*").Any(f => Bytes(f).AsSpan().IndexOf(Encoding.UTF8.GetBytes(said)) >= 0);
        There().ShouldBeTrue("or this test finds nothing");

        Db.Write(c => c.Execute("DELETE FROM notice"));
        Db.Forget().ShouldBeTrue();

        There().ShouldBeFalse();
    }

    [Fact]
    public void Who_reads_an_older_moment_is_not_disturbed_and_it_is_for_the_next_time()
    {
        Db.Read(c =>
        {
            c.ExecuteScalar<long>("SELECT count(*) FROM class");
            Db.Write(w => NoticeStore.Add(w, new NoticeRow { AuthorId = Teacher, Text = "x", MadeAt = At, PostedAt = At }, [(Class, null)]));
            Db.Forget().ShouldBeFalse();
            return true;
        });
        Db.Forget().ShouldBeTrue();
    }
}
