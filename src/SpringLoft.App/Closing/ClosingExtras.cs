using System.Text.Json;
using NodaTime.Text;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Closing;

/// <summary>What closing does to a class besides archiving it, and undoes when the class is restored.</summary>
/// <param name="Name">Before; null if it stayed.</param>
/// <param name="Calendar">What the addresses that were shut are made of, sealed; null if there were none.</param>
/// <param name="Ended">Students whose enrollment was ended.</param>
/// <param name="At">When they were ended: who left at another time has left for another reason.</param>
internal sealed record ClosingExtras(string? Name, string? Calendar, IReadOnlyList<long> Ended, string At)
{
    /// <returns>What it takes to undo it, as text.</returns>
    internal static string Do(IDbConnection c, ClassRow k, ClosingOptions options, PersonId by, Instant now)
    {
        var plan = ClosingPlan.Of(options with { RetireCalendar = false, EndEnrollments = false }, Subject(c, k, new ClosingFacts(ClassState.Open, 0, 0, 0, 0, 0, 0, true, false)));
        if (options.KeepCopy) KeptCopies.Keep(c, k, RosterStore.Members(c, k.Id).FirstOrDefault(m => m.Role == ClassRole.Lead && m.LeftAt is null)?.PersonId ?? by, now);
        if (plan.NewName is { } name) ClassStore.Rename(c, [(k.Id, name)]);
        var calendar = options.RetireCalendar ? ClassStore.SealedCalendar(c, k.Id) : null;
        if (calendar is not null) ClassStore.SetCalendar(c, k.Id, null);
        JoinStore.WithdrawOpen(c, k.Id, now);
        var ended = options.EndEnrollments ? RosterStore.Members(c, k.Id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null).Select(m => m.PersonId).ToList() : [];
        foreach (var student in ended) RosterStore.Leave(c, k.Id, student, now);
        return JsonSerializer.Serialize(new ClosingExtras(plan.NewName is null ? null : k.Name, calendar, [.. ended.Select(p => p.Value)], InstantPattern.ExtendedIso.Format(now)));
    }

    /// <summary>Undoes it, for a class that is open again.</summary>
    internal static void Undo(IDbConnection c, ClassId id)
    {
        if (RunStore.Undo(c, id) is not { } text || JsonSerializer.Deserialize<ClosingExtras>(text) is not { } e) return;
        if (e.Name is { } name && ClassStore.Names(c, SafeName.Key(name)).Count == 0) ClassStore.Rename(c, [(id, name)]);
        if (e.Calendar is { } kept) ClassStore.PutBackCalendar(c, id, kept);
        RosterStore.ComeBack(c, id, e.Ended.Select(p => new PersonId(p)), InstantPattern.ExtendedIso.Parse(e.At).Value);
    }

    /// <summary>A class as the rule on what closing does sees it.</summary>
    internal static ClosingSubject Subject(IDbConnection c, ClassRow k, ClosingFacts facts)
    {
        var label = YearStore.All(c).First(y => y.Id == k.YearId).Year.Label;
        var marked = ClosingPlan.NameWithYear(k.Name, label);
        return new(facts, k.Name, label, marked is not null && ClassStore.Names(c, SafeName.Key(marked)).Count > 0);
    }
}
