using System.Text;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Letters;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>The news as a daily letter, for those who want it: never more than one a day, and none where there is nothing new.</summary>
public sealed class NewsLetters(Premises premises, News news, SchoolAddress address)
{
    private const int Most = 40;

    /// <summary>Writes the letters of the day that are not written yet; each with the note that it is, in one transaction.</summary>
    /// <returns>How many were written.</returns>
    public int Go()
    {
        if (!NewsKinds.LetterIsDue(null, premises.Clock.LocalNow)) return 0;
        var day = premises.Clock.Today;
        return premises.Db.Read(c => NewsStore.WantLetter(c, day)).Count(id => premises.Db.Write(c => Write(c, id, day)));
    }

    private bool Write(IDbConnection c, PersonId id, LocalDate day)
    {
        var reader = NewsStore.Of(c, id);
        if (!reader.Letter || !NewsKinds.LetterIsDue(reader.LetterOn, premises.Clock.LocalNow) || PersonStore.Find(c, id) is not { Active: true, Email: { } to } p) return false;
        var now = premises.Clock.Now;
        // What was seen on the screen, or was in a letter before, is no news.
        var since = new[] { reader.SeenAt, reader.LetterAt, now - Duration.FromDays(News.Days) }.Max()!.Value;
        var lines = news.Lines(c, new Caller(id, p.Role, p.Name.Display), since);
        NewsStore.Wrote(c, id, day, now);
        if (lines.Count == 0) return false;
        var school = SchoolStore.Get(c)!.Name;
        LetterStore.Add(c, to, p.Name.Display, $"News from {school}", Text(p, school, lines), now);
        return true;
    }

    private string Text(PersonRow p, string school, List<NewsLine> lines)
    {
        var text = new StringBuilder($"Good morning, {p.Name.Display}.\n\nNew at {school} since you looked last:\n\n");
        foreach (var l in lines.Take(Most)) text.Append($"- {Said(l)}\n  {address.To(l.Path.TrimStart('/'))}\n");
        if (lines.Count > Most) text.Append($"- and {lines.Count - Most} more\n");
        return text.Append($"\nAll of it, and whether it comes as a letter:\n{address.To("news")}\n").ToString();
    }

    private static string Said(NewsLine l)
    {
        var title = l.Kind == NewsKind.Notice ? Acknowledgements.ShortWords(l.Title) : l.Title;
        return (l.Kind, l.Run) switch
        {
            (NewsKind.Returned, _) => $"{l.Course}: “{title}” came back",
            (NewsKind.Published, _) => $"{l.Course}: “{title}” is to be worked on",
            (NewsKind.Notice, _) => $"{l.Course ?? "To the whole school"}, {l.By}: {title}",
            (NewsKind.Asked, _) => $"{l.Course}: to be acknowledged: {title}",
            (NewsKind.Comment, _) => $"{l.Course}: {l.By} wrote about “{title}”",
            (NewsKind.Answer, _) => $"{l.Course}: {l.By} answered you in “{title}”",
            (NewsKind.Question, _) => $"{l.Course}: {l.By}{(l.Others > 0 ? $" and {l.Others} more" : "")} wrote in “{title}”",
            (NewsKind.Hold, _) => $"{l.OnHold} changes of “{title}” wait for a yes",
            (_, { } r) => $"A run over {r.Classes} classes ended: {r.Done} done{(r.Failed ? ", not all" : "")}",
            _ => title,
        };
    }
}
