using System.Data;
using Dapper;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Files;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.Store.Tests.Files;

public sealed class UnusedFilesTests : StoreTest
{
    private static readonly string A = new('a', 64), B = new('b', 64), C = new('c', 64);

    private IReadOnlyList<string> Noted() => Db.Read(c => UnusedFiles.Since(c, At + Duration.FromDays(1000)));

    private ItemId Item(IDbConnection c, string sha)
    {
        ItemStore.AddBlob(c, new(sha, null, 1), At);
        return ItemStore.Add(c, Class, new ItemRow { Kind = ItemKind.File, Name = "pot.txt", Sha256 = sha, AddedBy = Teacher, AddedAt = At });
    }

    [Fact]
    public void What_nothing_refers_to_is_noted_once_and_forgotten_when_it_is_used_again()
    {
        Db.Write(c => Item(c, A));
        Db.Write(c => ItemStore.AddBlob(c, new(B, null, 1), At));

        Db.Write(c => UnusedFiles.Note(c, [A, C], At));
        Db.Write(c => UnusedFiles.Note(c, [A, C], At + Duration.FromDays(3)));

        Noted().ShouldBe([B, C]);
        Db.Read(c => UnusedFiles.Since(c, At)).ShouldBe([B, C], "since the first time");
        Db.Read(c => (UnusedFiles.IsUsed(c, A), UnusedFiles.IsUsed(c, B), UnusedFiles.IsUsed(c, C))).ShouldBe((true, false, false));

        Db.Write(c => Item(c, C));
        Db.Write(c => UnusedFiles.Note(c, [A, C], At + Duration.FromDays(4)));
        Noted().ShouldBe([B]);

        Db.Write(c => UnusedFiles.Remove(c, B));
        Db.Read(c => c.Query<string>("SELECT sha256 FROM blob ORDER BY 1")).ShouldBe([A, C]);
        Noted().ShouldBeEmpty();
    }

    [Fact]
    public void Whatever_names_a_file_of_the_store_says_so_to_the_database()
    {
        var columns = Db.Read(c => c.Query<(string Table, string Column)>(
            "SELECT m.name, i.name FROM sqlite_master m JOIN pragma_table_info(m.name) i WHERE m.type = 'table' AND i.name LIKE '%sha256' AND m.name NOT IN ('blob', 'file_unused', 'take_home_holds') AND i.name <> 'token_sha256'").ToHashSet());
        var said = Db.Read(c => c.Query<(string, string)>("""SELECT m.name, f."from" FROM sqlite_master m JOIN pragma_foreign_key_list(m.name) f WHERE m.type = 'table' AND f."table" = 'blob'""").ToHashSet());

        columns.Count.ShouldBeGreaterThan(8);
        said.ShouldBe(columns, ignoreOrder: true);
    }
}
