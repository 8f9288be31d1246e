using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.School;

namespace SpringLoft.App.School;

/// <summary>A scale on which work can be marked.</summary>
/// <param name="Levels">The highest first.</param>
public sealed record ScaleView(long Id, string Name, IReadOnlyList<MarkLevel> Levels, int Version);

/// <summary>A scale as it is laid down.</summary>
public sealed record ScaleDraft(string? Name, IReadOnlyList<MarkLevel>? Levels);

/// <summary>The scales of the school, beside points, criteria and complete / not yet. Assignments keep the one that they were given with.</summary>
public sealed class SchoolScales(Premises premises)
{
    /// <summary>Most scales of a school.</summary>
    public const int Most = 40;

    /// <summary>All of them, by name.</summary>
    public IReadOnlyList<ScaleView> See() => premises.Db.Read(c => ScaleStore.All(c).Select(s => new ScaleView(s.Id, s.Name, s.Scheme.Levels, s.Version)).ToList());

    /// <summary>Lays down another one.</summary>
    public void Add(Caller by, ScaleDraft draft) => premises.Db.Write(c =>
    {
        var (name, scheme) = Checked(c, draft, null);
        if (ScaleStore.All(c).Count >= Most) throw new RefusedException("too-many", $"The school has {Most} scales already.", "Remove one that nobody uses.", "name");
        ScaleStore.Add(c, name, scheme);
        Premises.Add(c, by, premises.Clock.Now, new("laid down scale", "school", null, null, name));
    });

    /// <summary>Changes one, at the version that was seen. What was given with it stays as it is.</summary>
    public void Change(Caller by, long id, ScaleDraft draft, int version) => premises.Db.Write(c =>
    {
        var (name, scheme) = Checked(c, draft, id);
        if (ScaleStore.All(c).All(s => s.Id != id)) throw Refusals.NotFound("scale");
        if (!ScaleStore.Save(c, id, name, scheme, version)) throw Refusals.ChangedMeanwhile("scale");
        Premises.Add(c, by, premises.Clock.Now, new("changed scale", "school", null, null, name));
    });

    /// <summary>Removes one: nobody gives work with it any more.</summary>
    public void Remove(Caller by, long id) => premises.Db.Write(c =>
    {
        var name = ScaleStore.All(c).FirstOrDefault(s => s.Id == id)?.Name ?? throw Refusals.NotFound("scale");
        ScaleStore.Remove(c, id);
        Premises.Add(c, by, premises.Clock.Now, new("removed scale", "school", null, null, name));
    });

    private static (string Name, MarkScheme Scheme) Checked(IDbConnection c, ScaleDraft draft, long? but)
    {
        var name = Refusals.Needed(draft.Name, "name", "The name of the scale", 60);
        if (ScaleStore.All(c).Any(s => s.Id != but && SafeName.Clash(s.Name, name))) throw new RefusedException("name-taken", $"There is already a scale “{name}”.", "Give this one another name.", "name");
        return (name, new MarkScheme(name, [.. (draft.Levels ?? []).Select(l => l is null ? null! : l with { Name = l.Name?.Trim() ?? "" })], []).Checked("levels"));
    }
}
