using SpringLoft.Core.People;

namespace SpringLoft.Core.Rosters;

/// <summary>A line of a pasted list, and what it says about a person.</summary>
public sealed record PastedPerson(string Text, PersonClaim Claim);

/// <summary>
/// Reads people out of what was pasted: a column or a table of a spreadsheet, or a list out of a letter. A cell with an @ is
/// an e-mail; one of digits is a student number; "Family, Given" says its order; two cells or two words of a name do not,
/// and both orders are tried.
/// </summary>
public static class PastedList
{
    /// <summary>Most lines of one paste.</summary>
    public const int Most = 500;

    private static readonly string[] Numbers = ["number", "student number", "id", "student id", "no"];
    private static readonly string[] Givens = ["given", "given name", "first", "first name", "forename"];
    private static readonly string[] Families = ["family", "family name", "last", "last name", "surname"];

    /// <summary>One claim a line; blank lines and a header are left out.</summary>
    /// <exception cref="RefusedException"><c>list-empty</c>, <c>too-many</c>.</exception>
    public static IReadOnlyList<PastedPerson> Read(string text)
    {
        var lines = text.TrimStart('\uFEFF').ReplaceLineEndings("\n").Split('\n').Where(l => !string.IsNullOrWhiteSpace(l)).ToList();
        if (lines.Count == 0) throw new RefusedException("list-empty", "There is nobody in what was pasted.", "Paste names, student numbers or e-mails, one person a line.", "text");
        if (lines.Count > Most) throw new RefusedException("too-many", $"{lines.Count} people at once are too many.", $"Paste up to {Most}.", "text");
        var separator = lines.Any(l => l.Contains('\t', StringComparison.Ordinal)) ? '\t' : lines.All(l => l.Contains(';', StringComparison.Ordinal)) ? ';' : '\0';
        var header = Header(Cells(lines[0], separator));
        return [.. lines.Skip(header is null ? 0 : 1).Select(l => new PastedPerson(string.Join(" ", Cells(l, separator).Where(c => c.Length > 0)), header is null ? Guess(Cells(l, separator)) : Named(Cells(l, separator), header)))];
    }

    private static string[] Cells(string line, char separator) => [.. (separator == '\0' ? [line] : line.Split(separator)).Select(c => c.Trim().Trim('"').Trim())];

    // A header is a line in which at least two cells, or the only one, name a column that we know.
    private static string[]? Header(string[] cells)
    {
        var known = cells.Select(c => c.ToLowerInvariant()).Select(c => Numbers.Contains(c) ? "number" : Givens.Contains(c) ? "given" : Families.Contains(c) ? "family" : c is "name" or "student" or "e-mail" or "email" or "grade" or "user name" ? c.Replace("-", "", StringComparison.Ordinal) : "").ToArray();
        return known.Count(k => k.Length > 0) >= Math.Min(2, cells.Length) ? known : null;
    }

    private static PersonClaim Named(string[] cells, string[] header)
    {
        string? At(string column) => Array.IndexOf(header, column) is var i and >= 0 && i < cells.Length && cells[i].Length > 0 ? cells[i] : null;
        var (name, known) = At("given") is { } given || At("family") is not null ? (new PersonName(At("given") ?? "", At("family") ?? ""), true) : (At("name") ?? At("student")) is { } whole ? Name(whole) : (null, false);
        return new(null, At("number"), At("email"), At("user name"), name, known, At("grade"));
    }

    private static PersonClaim Guess(string[] cells)
    {
        var rest = cells.Where(c => c.Length > 0).ToList();
        string? Take(Func<string, bool> which)
        {
            var found = rest.FirstOrDefault(which);
            if (found is not null) rest.Remove(found);
            return found;
        }
        var email = Take(c => c.Contains('@', StringComparison.Ordinal) && !c.Contains(' ', StringComparison.Ordinal));
        // A grade is short; a number that identifies is not.
        var number = Take(c => c.Length >= 3 && c.All(char.IsAsciiDigit));
        var grade = Take(c => c.Length <= 2 && c.All(char.IsAsciiDigit));
        var (name, known) = rest.Count switch
        {
            0 => (null, false),
            1 => Name(rest[0]),
            _ => ((PersonName?)new PersonName(rest[0], rest[1]), false),
        };
        // One word alone may be a user name.
        return new(null, number, email, rest.Count == 1 && !rest[0].Contains(' ', StringComparison.Ordinal) ? rest[0] : null, name, known, grade);
    }

    private static (PersonName? Name, bool OrderKnown) Name(string text)
    {
        var comma = text.IndexOf(',', StringComparison.Ordinal);
        return comma > 0 ? (new(text[(comma + 1)..].Trim(), text[..comma].Trim()), true) : (new(text, ""), false);
    }
}
