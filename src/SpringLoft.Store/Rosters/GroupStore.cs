using SpringLoft.Core.Naming;

namespace SpringLoft.Store.Rosters;

/// <summary>A group of a class.</summary>
public sealed record GroupRow
{
    public GroupId Id { get; init; }
    public string Name { get; init; } = "";
    public int Position { get; init; }
    public int Version { get; init; }
}

/// <summary>Owns class_group and group_member.</summary>
public static class GroupStore
{
    /// <summary>Groups of a class in their order, the bin left out.</summary>
    public static IReadOnlyList<GroupRow> OfClass(IDbConnection c, ClassId id) => [.. c.Query<GroupRow>(
        "SELECT id, name, position, version FROM class_group WHERE class_id = @id AND binned_at IS NULL ORDER BY position, id", new { id })];

    /// <summary>Who is in which group; those who left the class are not.</summary>
    public static ILookup<GroupId, PersonId> Members(IDbConnection c, ClassId id) => c.Query<(long, long)>(
        """
        SELECT x.group_id, x.person_id FROM class_group g JOIN group_member x ON x.group_id = g.id
        JOIN member m ON m.class_id = g.class_id AND m.person_id = x.person_id AND m.left_at IS NULL
        WHERE g.class_id = @id AND g.binned_at IS NULL
        """, new { id }).ToLookup(x => new GroupId(x.Item1), x => new PersonId(x.Item2));

    /// <summary>Groups of a class that one person is in.</summary>
    public static IReadOnlySet<GroupId> Of(IDbConnection c, ClassId id, PersonId person) => c.Query<long>(
        "SELECT x.group_id FROM group_member x JOIN class_group g ON g.id = x.group_id WHERE x.person_id = @person AND g.class_id = @id AND g.binned_at IS NULL", new { id, person })
        .Select(x => new GroupId(x)).ToHashSet();

    /// <summary>Adds a group at the end.</summary>
    public static GroupId Add(IDbConnection c, ClassId id, string name) => new(c.ExecuteScalar<long>(
        """
        INSERT INTO class_group(class_id, name, name_key, position)
        VALUES(@id, @name, @key, (SELECT ifnull(max(position) + 1, 0) FROM class_group WHERE class_id = @id AND binned_at IS NULL)) RETURNING id
        """, new { id, name, key = SafeName.Key(name) }));

    /// <summary>Renames a group at the version that was seen; false if changed meanwhile.</summary>
    public static bool Rename(IDbConnection c, GroupId id, string name, int version) => c.Execute(
        "UPDATE class_group SET name = @name, name_key = @key, version = version + 1 WHERE id = @id AND version = @version", new { id, version, name, key = SafeName.Key(name) }) == 1;

    /// <summary>Puts these people, and no other, into a group.</summary>
    public static void SetMembers(IDbConnection c, GroupId id, IEnumerable<PersonId> people)
    {
        c.Execute("DELETE FROM group_member WHERE group_id = @id", new { id });
        c.Execute("INSERT INTO group_member(group_id, person_id) VALUES(@id, @person)", people.Distinct().Select(person => new { id = id.Value, person = person.Value }));
    }

    /// <summary>Adds one person to a group; nothing happens if they are in it.</summary>
    public static void AddMember(IDbConnection c, GroupId id, PersonId person) =>
        c.Execute("INSERT INTO group_member(group_id, person_id) VALUES(@id, @person) ON CONFLICT DO NOTHING", new { id, person });

    /// <summary>Puts a group in the bin; its members are in it no longer.</summary>
    public static void Bin(IDbConnection c, GroupId id, Instant at) => c.Execute("UPDATE class_group SET binned_at = @at WHERE id = @id", new { id, at });
}
