using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Rosters;

/// <summary>Compares the family contacts of a delivery with those that deliveries brought before. Whose contact somebody is that a person said by hand, no delivery takes away.</summary>
public static class ContactComparison
{
    /// <summary>What would change.</summary>
    /// <param name="matched">Who of the directory each person of the delivery is; null for somebody new.</param>
    /// <param name="findings">Takes what could not be taken as it is.</param>
    internal static IEnumerable<RosterChange> Compare(RosterDelivery delivery, RosterToday today, IReadOnlyDictionary<string, PersonId?> matched, List<DeliveryFinding> findings)
    {
        if (delivery.Contacts.Count == 0) yield break;
        var people = today.People.ToDictionary(p => p.Id);
        var students = new Children(delivery, today, matched);
        var known = today.Contacts.ToDictionary(k => k.RecordId, StringComparer.OrdinalIgnoreCase);
        foreach (var d in delivery.Contacts)
        {
            var there = known.GetValueOrDefault(d.Ref);
            known.Remove(d.Ref);
            if (d.Gone)
            {
                if (there is { Gone: false }) yield return Goes(there, "the school's records say so");
                continue;
            }
            var (ids, names) = (students.Known(d), students.New(d));
            if (there is null)
            {
                if (ids.Count + names.Count == 0) findings.Add(new(delivery.PeopleList?.File ?? "", d.Line, "agentSourcedIds", $"{d.Name} is the contact of nobody who is known here: the row is left out."));
                else yield return new(ChangeKind.NewContact, d.Name, "", $"contact of {Said(ids, names)}{(d.Email is null ? "; without an e-mail address" : "")}") { PersonRef = d.Ref };
                continue;
            }
            var differs = Differences(there, d, ids, names).ToList();
            if (differs.Count > 0) yield return new(ChangeKind.ChangedContact, there.Name, "", string.Join("; ", differs)) { PersonRef = d.Ref };
        }
        if (delivery.PeopleList is { Whole: true })
            foreach (var k in known.Values.Where(k => !k.Gone)) yield return Goes(k, "no longer in the school's records");

        string Said(IEnumerable<PersonId> ids, IEnumerable<string> names) => string.Join(", ", ids.Select(i => new PersonName(people[i].Given, people[i].Family).Display).Concat(names));

        IEnumerable<string> Differences(TodayContact k, DeliveredContact d, IReadOnlyList<PersonId> ids, IReadOnlyList<string> names)
        {
            if (k.Gone) yield return "in the school's records again";
            if (k.Name != d.Name) yield return $"name “{k.Name}” to “{d.Name}”";
            if (d.Email is { } email && !string.Equals(email, k.Email, StringComparison.OrdinalIgnoreCase)) yield return k.Email is null ? $"e-mail {email}" : $"e-mail {k.Email} to {email}";
            var more = ids.Except(k.Children).Except(k.ByHand).ToList();
            if (more.Count + names.Count > 0) yield return $"contact of {Said(more, names)} too";
            // Only a whole list says whose contact they are no longer.
            if (delivery.PeopleList is { Whole: true } && k.Children.Except(ids).Where(people.ContainsKey).ToList() is { Count: > 0 } less) yield return $"no longer contact of {Said(less, [])}";
        }
    }

    private static RosterChange Goes(TodayContact k, string why) => new(ChangeKind.ContactGone, k.Name, "", $"{why}; no letter goes to them any more") { PersonRef = k.RecordId };

    /// <summary>Which students of the directory, and which new ones, the contacts of a delivery belong to.</summary>
    public sealed class Children
    {
        private readonly IReadOnlyDictionary<string, PersonId?> matched;
        private readonly Dictionary<string, PersonId> records;
        private readonly HashSet<PersonId> students;
        private readonly Dictionary<string, DeliveredPerson> coming;

        /// <inheritdoc cref="ContactComparison.Compare"/>
        public Children(RosterDelivery delivery, RosterToday today, IReadOnlyDictionary<string, PersonId?> matched)
        {
            this.matched = matched;
            students = [.. today.People.Where(p => p.Role == SchoolRole.Student).Select(p => p.Id)];
            records = today.People.Where(p => p is { RecordId: not null, Role: SchoolRole.Student }).ToDictionary(p => p.RecordId!, p => p.Id, StringComparer.OrdinalIgnoreCase);
            coming = delivery.People.Where(p => p is { Role: SchoolRole.Student, Gone: false }).ToDictionary(p => p.Ref, StringComparer.OrdinalIgnoreCase);
        }

        /// <summary>Who of the directory; who is unclear is nobody's child until a person has said who they are.</summary>
        public IReadOnlyList<PersonId> Known(DeliveredContact d) => [.. d.Children.Select(Known).OfType<PersonId>().Where(students.Contains).Distinct()];

        private PersonId? Known(string child)
        {
            if (matched.TryGetValue(coming.GetValueOrDefault(child)?.Ref ?? child, out var who)) return who;
            return !coming.ContainsKey(child) && records.TryGetValue(child, out var known) ? known : null;
        }

        /// <summary>Names of those who come with this delivery.</summary>
        public IReadOnlyList<string> New(DeliveredContact d) => [.. Refs(d).Select(r => new PersonName(coming[r].Given, coming[r].Family).Display)];

        /// <summary>How the delivery calls those who come with it.</summary>
        public IReadOnlyList<string> Refs(DeliveredContact d) => [.. d.Children.Where(r => coming.TryGetValue(r, out var p) && matched.TryGetValue(p.Ref, out var who) && who is null).Select(r => coming[r].Ref)];
    }
}
