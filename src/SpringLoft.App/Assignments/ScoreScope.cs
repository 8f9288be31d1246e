using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Assignments;

/// <summary>A class among those whose scores are looked at together.</summary>
/// <param name="Letter">Of a section in a combined roster; null for a class alone.</param>
internal sealed record ScoreSection(ClassRow Class, string? Letter, int? Colour);

/// <summary>The classes whose scores are one population: a class, or the sections of a combined roster.</summary>
internal sealed record ScoreScope(string Name, IReadOnlyList<ScoreSection> Sections)
{
    internal static ScoreScope OfClass(IDbConnection c, Caller who, ClassId id)
    {
        var at = ClassGate.Demand(c, who, id, Act.Mark);
        return new(at.Class.Name, [new(at.Class, null, null)]);
    }

    internal static ScoreScope OfCombined(IDbConnection c, Caller who, long combined)
    {
        var row = Rosters.CombinedRosters.Find(c, who, combined);
        return new(row.Name, [.. Rosters.CombinedRosters.SectionsOf(c, who, combined, Act.Mark).Select(s => new ScoreSection(ClassStore.Find(c, s.Class)!, s.Letter, s.Colour))]);
    }

    /// <summary>Who is on a roster now.</summary>
    internal static IEnumerable<MemberRow> Students(IDbConnection c, ClassId id) => RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null);

    /// <summary>How other programs know a class: as the school's records call it, or by our number.</summary>
    internal static string SourcedId(ClassRow k) => k.RecordId ?? $"class-{k.Id.Value}";

    /// <summary>The same of a person.</summary>
    internal static string SourcedId(PersonRow p) => p.RecordId ?? $"person-{p.Id.Value}";
}
