using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.People;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.OneRoster;
using SpringLoft.Store.People;

namespace SpringLoft.App.Rosters;

/// <summary>A person of a class that lives in another program.</summary>
/// <param name="People">The one who is known, or those who might be meant.</param>
public sealed record OutsidePerson(string Name, string? Email, bool IsTeacher, Knowledge Knowledge, string Why, IReadOnlyList<FoundPerson> People);

/// <summary>A class that lives in another program.</summary>
public sealed record OutsideClass(string Code, string Name, IReadOnlyList<OutsidePerson> People);

/// <summary>Takes over the people of a class that lives in another program, by the code it has there.</summary>
/// <param name="from">Where that program is asked; null where none is connected.</param>
public sealed class OutsideClasses(Premises premises, HttpClient http, Func<Uri?> from)
{
    private sealed record Answer(string? Name, IReadOnlyList<AnswerPerson>? People);

    private sealed record AnswerPerson(string? Name, string? Email, string? Role);

    /// <summary>Looks a class up by its code and says whom of it the directory knows. Writes nothing.</summary>
    /// <exception cref="RefusedException"><c>outside-none</c>, <c>outside-unknown</c>, <c>outside-unreachable</c>.</exception>
    public async Task<OutsideClass> Look(ClassId id, string? code, CancellationToken stop)
    {
        var text = Refusals.Needed(code, "code", "The code", 40);
        var root = from() ?? throw new RefusedException("outside-none", "No other program is connected.", "Ask those who run Spring Loft to set SPRING_LOFT_OUTSIDE.", "code");
        Answer found;
        try
        {
            using var answer = await http.GetAsync(Under(root, text), stop).ConfigureAwait(false);
            if (answer.StatusCode == HttpStatusCode.NotFound) throw Unknown(text);
            answer.EnsureSuccessStatusCode();
            found = await answer.Content.ReadFromJsonAsync<Answer>(stop).ConfigureAwait(false) ?? new(null, null);
        }
        catch (Exception e) when (e is HttpRequestException or JsonException || (e is TaskCanceledException && !stop.IsCancellationRequested))
        {
            throw new RefusedException("outside-unreachable", $"The other program can't be read: {(e is HttpRequestException r ? WhyUnreachable.Of(r) : e is JsonException ? "its answer is no class" : "it did not answer in time")}.", "Try again in a moment.", "code");
        }
        return premises.Db.Read(c =>
        {
            var knowing = new Knowing(DirectoryStore.Known(c));
            var matched = (found.People ?? []).Where(p => !string.IsNullOrWhiteSpace(p.Name) || !string.IsNullOrWhiteSpace(p.Email)).Take(500).Select(p =>
                (Person: p, Who: knowing.Find(new(null, null, p.Email, null, string.IsNullOrWhiteSpace(p.Name) ? null : new PersonName(p.Name.Trim(), ""), false, null)))).ToList();
            IEnumerable<PersonId> Meant(Recognised r) => r.Person is { } one ? [one] : r.Candidates;
            var people = RosterDesk.Found(c, id, PersonStore.Find(c, matched.SelectMany(m => Meant(m.Who)).Distinct())).ToDictionary(p => p.Id);
            return new OutsideClass(text, found.Name ?? text, [.. matched.Select(m => new OutsidePerson(m.Person.Name ?? m.Person.Email!, m.Person.Email, m.Person.Role == "teacher", m.Who.Knowledge, m.Who.Why, [.. Meant(m.Who).Where(people.ContainsKey).Select(p => people[p])]))]);
        });
    }

    // A code is one step below the classes; one that leads up, or further down, is no code.
    private static Uri Under(Uri root, string code)
    {
        var classes = new Uri(root, "classes/");
        var asked = new Uri(classes, Uri.EscapeDataString(code));
        return asked.AbsolutePath.StartsWith(classes.AbsolutePath, StringComparison.Ordinal) && asked.Segments.Length == classes.Segments.Length + 1 && !asked.AbsolutePath.EndsWith('/') ? asked : throw Unknown(code);
    }

    private static RefusedException Unknown(string code) => new("outside-unknown", $"The other program has no class with the code “{code}”.", "Look at the code once more.", "code");
}
