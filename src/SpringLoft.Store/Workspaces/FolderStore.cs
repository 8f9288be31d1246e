using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.Workspaces;

/// <summary>A folder.</summary>
public sealed record FolderRow
{
    public FolderId Id { get; init; }
    public FolderId? ParentId { get; init; }
    public string Name { get; init; } = "";
    public int Position { get; init; }
    public FolderRule Rule { get; init; }
    public PersonId? StudentId { get; init; }
    public GroupId? GroupId { get; init; }

    /// <summary>What members of the group may do, as bits; see <see cref="GroupMay"/>.</summary>
    public int MembersMay { get; init; } = 7;
    public FolderKey? PlanKey { get; init; }
    public string? GivenName { get; init; }
    public FolderRule? GivenRule { get; init; }
    public int? GivenPosition { get; init; }
    public int Version { get; init; }
    public Instant? BinnedAt { get; init; }

    /// <summary>Null where a plan did it.</summary>
    public PersonId? BinnedBy { get; init; }

    /// <summary>What its plan gave it when it was last put; null for a folder that no plan made.</summary>
    public GivenFolder? Given => GivenName is { } n && GivenRule is { } r && GivenPosition is { } p ? new(n, r, p) : null;

    /// <summary>As the rules on access see it.</summary>
    public FolderFact Fact => new(Id, ParentId, Name, Rule, StudentId, GroupId, Rule == FolderRule.OnePerGroup ? GroupMay.Of(MembersMay) : null);
}

/// <summary>A folder as it is kept: for looking through tens of thousands, where making each value ours would be most of the time.</summary>
/// <param name="Rule">As text, as are the plan's key and the rule that the plan gave.</param>
public sealed record KeptFolder(FolderId Id, FolderId? ParentId, bool IsBinned, string Name, string Rule, int Position, string? PlanKey, string? GivenName, string? GivenRule, int? GivenPosition);

/// <summary>Owns folder.</summary>
public static class FolderStore
{
    private const string Columns = "id, parent_id, name, position, rule, student_id, group_id, members_may, plan_key, given_name, given_rule, given_position, version, binned_at, binned_by";

    /// <summary>Folders of a class in the order in which they stand within their parents, the bin left out.</summary>
    public static IReadOnlyList<FolderRow> OfClass(IDbConnection c, ClassId id) => [.. c.Query<FolderRow>(
        $"SELECT {Columns} FROM folder WHERE class_id = @id AND binned_at IS NULL ORDER BY parent_id, position, id", new { id })];

    /// <summary>The same with the bin.</summary>
    public static IReadOnlyList<FolderRow> WithBin(IDbConnection c, ClassId id) => [.. c.Query<FolderRow>(
        $"SELECT {Columns} FROM folder WHERE class_id = @id ORDER BY parent_id, position, id", new { id })];

    /// <summary>All of a class as they are kept, the bin too, in no order.</summary>
    public static IReadOnlyList<KeptFolder> AsKept(IDbConnection c, ClassId id)
    {
        var found = new List<KeptFolder>();
        using var r = c.ExecuteReader("SELECT id, parent_id, binned_at IS NOT NULL, name, rule, position, plan_key, given_name, given_rule, given_position FROM folder WHERE class_id = @id", new { id });
        string? Text(int at) => r.IsDBNull(at) ? null : r.GetString(at);
        while (r.Read())
            found.Add(new(new(r.GetInt64(0)), r.IsDBNull(1) ? null : new(r.GetInt64(1)), r.GetInt64(2) != 0, r.GetString(3), r.GetString(4), r.GetInt32(5), Text(6), Text(7), Text(8), r.IsDBNull(9) ? null : r.GetInt32(9)));
        return found;
    }

    /// <summary>Some of a class, the bin too, in no order.</summary>
    public static IReadOnlyList<FolderRow> Some(IDbConnection c, ClassId id, IEnumerable<FolderId> folders) => [.. c.Query<FolderRow>(
        $"SELECT {Columns} FROM folder WHERE class_id = @id AND id IN (SELECT value FROM json_each(@ids))", new { id, ids = System.Text.Json.JsonSerializer.Serialize(folders.Select(f => f.Value).Distinct()) })];

    /// <summary>How many folders a class has, the bin left out.</summary>
    public static int CountOf(IDbConnection c, ClassId id) => c.ExecuteScalar<int>("SELECT count(*) FROM folder WHERE class_id = @id AND binned_at IS NULL", new { id });

    /// <summary>Adds what a plan asks for and is not there yet. Where a name is taken by a folder of the teacher's, a number tells them apart.</summary>
    /// <returns>How many were added.</returns>
    public static int Unfold(IDbConnection c, ClassId id, IReadOnlyList<UnfoldedFolder> wanted)
    {
        var there = WithBin(c, id);
        var byKey = there.Where(f => f.PlanKey is not null).ToDictionary(f => f.PlanKey!, f => f.Id);
        var missing = PlanUnfolding.Missing(wanted, byKey.Keys.ToHashSet());
        if (missing.Count > 0) MakeRoom(c, there, wanted);
        var names = there.Where(f => f.BinnedAt is null).GroupBy(f => f.ParentId)
            .ToDictionary(g => g.Key ?? default, g => g.Select(f => SafeName.Key(f.Name)).ToHashSet());
        foreach (var folder in missing)
        {
            FolderId? parent = folder.ParentKey is { } p ? byKey[p] : null;
            if (!names.TryGetValue(parent ?? default, out var taken)) names[parent ?? default] = taken = [];
            var name = SafeName.Distinct(folder.Name, taken, isFile: false);
            taken.Add(SafeName.Key(name));
            byKey[folder.Key] = Add(c, id, parent, name, folder.Position, folder.Rule, folder.Student, folder.Key, new(folder.Name, folder.Rule, folder.Position), folder.Group);
        }
        return missing.Count;
    }

    // A student or a group that came late stands in its place, not at the end: those after it move on, unless a person had moved them.
    private static void MakeRoom(IDbConnection c, IReadOnlyList<FolderRow> there, IReadOnlyList<UnfoldedFolder> wanted)
    {
        var at = wanted.ToDictionary(w => w.Key, w => w.Position);
        c.Execute("UPDATE folder SET position = @position, given_position = @position WHERE id = @id", there
            .Where(f => f.PlanKey is not null && f.Position == f.GivenPosition && at.TryGetValue(f.PlanKey, out var p) && p != f.Position)
            .Select(f => new { id = f.Id.Value, position = at[f.PlanKey!] }));
    }

    /// <summary>Adds one folder.</summary>
    public static FolderId Add(IDbConnection c, ClassId id, FolderId? parent, string name, int position, FolderRule rule, PersonId? student, FolderKey? planKey, GivenFolder? given = null, GroupId? group = null, GroupMay? may = null) =>
        new(c.ExecuteScalar<long>(
            """
            INSERT INTO folder(class_id, parent_id, name, name_key, position, rule, student_id, group_id, members_may, plan_key, given_name, given_rule, given_position)
            VALUES(@id, @parent, @name, @key, @position, @rule, @student, @group, @may, @planKey, @givenName, @givenRule, @givenPosition) RETURNING id
            """, new
            {
                id,
                parent,
                name,
                key = SafeName.Key(name),
                position,
                rule = rule.ToString(),
                student,
                group,
                may = (may ?? GroupMay.Everything).Bits,
                planKey,
                givenName = planKey is null ? null : given?.Name ?? name,
                givenRule = planKey is null ? null : (given?.Rule ?? rule).ToString(),
                givenPosition = planKey is null ? (int?)null : given?.Position ?? position,
            }));

    /// <summary>Writes a folder as the row says, at the version that was seen; false if somebody changed it meanwhile.</summary>
    public static bool Save(IDbConnection c, FolderRow f) => c.Execute(
        """
        UPDATE folder SET parent_id = @ParentId, name = @Name, name_key = @key, position = @Position, rule = @rule, group_id = @GroupId, members_may = @MembersMay, plan_key = @PlanKey, given_name = @GivenName,
          given_rule = @givenRule, given_position = @GivenPosition, binned_at = @BinnedAt, binned_by = @BinnedBy, version = version + 1
        WHERE id = @Id AND version = @Version
        """, new { f.Id, f.Version, f.ParentId, f.Name, key = SafeName.Key(f.Name), f.Position, rule = f.Rule.ToString(), f.GroupId, f.MembersMay, f.PlanKey, f.GivenName, givenRule = f.GivenRule?.ToString(), f.GivenPosition, f.BinnedAt, f.BinnedBy }) == 1;

    /// <summary>Gives folders of a class other keys; they may take them from one another.</summary>
    public static void Rekey(IDbConnection c, IReadOnlyList<(FolderId Id, FolderKey Key)> keys)
    {
        c.Execute("UPDATE folder SET plan_key = '~' || id WHERE id = @id", keys.Select(k => new { id = k.Id.Value }));
        c.Execute("UPDATE folder SET plan_key = @key WHERE id = @id", keys.Select(k => new { id = k.Id.Value, key = k.Key }));
    }

    /// <summary>Deletes empty folders for good, with those of them that stand in one another: an act just made them and is taken back.</summary>
    public static void Delete(IDbConnection c, IEnumerable<FolderId> ids) =>
        c.Execute("DELETE FROM folder WHERE id IN (SELECT value FROM json_each(@ids))", new { ids = System.Text.Json.JsonSerializer.Serialize(ids.Select(i => i.Value)) });
}
