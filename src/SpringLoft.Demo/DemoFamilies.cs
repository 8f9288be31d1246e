using SpringLoft.Core.Letters;
using SpringLoft.Core.People;
using SpringLoft.Store.Letters;

namespace SpringLoft.Demo;

/// <summary>Contacts at home of a good third of the students: most may be written to, some have no address, of some the school has not said yet.</summary>
internal static class DemoFamilies
{
    private const int Students = 100;
    private static readonly string[] Given = ["Ingrid", "Tomás", "Edda", "Lukas", "Marguerite", "Anton", "Solveig", "Pilar", "Henrik", "Yvonne", "Matteo", "Ruth"];

    internal static void Add(IDbConnection c, IReadOnlyList<Person> students, Instant now)
    {
        var homes = new Dictionary<string, (ContactId Id, List<PersonId> Children)>();
        for (var n = 0; n < Students; n++)
        {
            var (s, family) = (students[n], students[n].Name.Family);
            // Brothers and sisters of some have one contact.
            if (n % 2 == 1 && homes.TryGetValue(family, out var home) && home.Children.Count == 1)
            {
                home.Children.Add(s.Id);
                FamilyStore.SetChildren(c, home.Id, home.Children, byHand: true);
                continue;
            }
            var name = new PersonName(Given[n % Given.Length], family);
            var email = n % 11 == 5 ? null : $"{PersonName.SearchKey(name.Display).Replace(' ', '.')}.{s.Number}@home.invalid";
            var id = FamilyStore.Add(c, null, name.Display, email, HomeWords.All[n % 5 == 4 ? 1 + (n / 5 % 3) : 0].Code, n % 7 == 3 ? null : now);
            FamilyStore.SetChildren(c, id, [s.Id], byHand: true);
            homes[family] = (id, [s.Id]);
        }
    }
}
