using NodaTime;
using SpringLoft.App;
using SpringLoft.App.Letters;
using SpringLoft.Core;
using SpringLoft.Core.Letters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Print;
using SpringLoft.Server.Api;
using SpringLoft.Server.Workspaces;

namespace SpringLoft.Server.Letters;

internal sealed record LetBody(IReadOnlyList<ContactId>? Contacts, bool Let);

internal sealed record LetCount(int Changed);

internal sealed record WeeklyBody(bool On, IsoDayOfWeek Day, bool Marks);

internal sealed record MadeContact(ContactId Id);

/// <summary>Contacts of families, the weekly letter, and the page that stops it.</summary>
internal static class FamilyEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        var f = api.MapGroup("/families");
        f.MapGet("", (string? find, Caller who, Families families) => families.See(who, find)).WithName("families").Needs(Act.KeepFamilies);
        f.MapPost("", (NewContact body, Caller who, Families families) => new MadeContact(families.Add(who, body))).WithName("addContact").Needs(Act.KeepFamilies);
        f.MapPut("/weekly", (WeeklyBody body, Caller who, Families families) =>
        {
            families.SetWeekly(who, body.On, body.Day, body.Marks);
            return TypedResults.NoContent();
        }).WithName("setWeeklyLetter").Needs(Act.KeepFamilies);
        f.MapPost("/let", (LetBody body, Caller who, Families families) => new LetCount(families.LetWrite(who, body.Contacts, body.Let))).WithName("letContactsBeWrittenTo").Needs(Act.KeepFamilies);
        var one = f.MapGroup("/{contactId:long}");
        one.MapPut("", (long contactId, NewContact body, int version, Caller who, Families families) =>
        {
            families.Change(who, new(contactId), body, version);
            return TypedResults.NoContent();
        }).WithName("changeContact").Needs(Act.KeepFamilies);
        one.MapDelete("", (long contactId, Caller who, Families families) =>
        {
            families.Remove(who, new(contactId));
            return TypedResults.NoContent();
        }).WithName("removeContact").Needs(Act.KeepFamilies);
        // It notes that one was looked at: no address that a browser fetches ahead.
        one.MapPost("/letter", (long contactId, bool marks, Caller who, WeeklyLetters letters) => letters.Preview(who, new(contactId), marks)).WithName("previewWeeklyLetter").Needs(Act.KeepFamilies);
    }

    /// <summary>The page that a letter's last line leads to. What a mail program fetches ahead changes nothing: a button does.</summary>
    internal static void MapPages(WebApplication app)
    {
        app.MapGet("/letters/stop/{code}", (string code, HttpContext context, StoppingLetters stopping) => Page(code, context, stopping)).ExcludeFromDescription();
        app.MapPost("/letters/stop/{code}", async (string code, HttpContext context, StoppingLetters stopping) =>
        {
            var wish = await HomePages.Typed(context, "stopped");
            try { if (wish is "yes" or "no") stopping.Set(code, wish == "yes", HomePages.From(context)); }
            catch (RefusedException) { return Page(code, context, stopping); }
            return Results.Redirect($"/letters/stop/{Uri.EscapeDataString(code)}");
        }).ExcludeFromDescription();
    }

    private static IResult Page(string code, HttpContext context, StoppingLetters stopping)
    {
        StopView v;
        try { v = stopping.See(code, HomePages.From(context)); }
        catch (RefusedException e)
        {
            var asked = HomePages.Words(context);
            return HomePages.Send(context, Problems.StatusOf(e.Refusal.Code), HomePage.Write(asked.Code, null, asked.StopTitle, [e.Refusal.Code == "home-slow" ? asked.TooMany : asked.LinkWrong], null, [], null, null));
        }
        var words = HomeWords.Of(v.Language);
        return HomePages.Send(context, 200, HomePage.Write(words.Code, v.School, words.StopTitle, [v.Stopped ? words.Stopped : words.StopAsk(words.And(v.Students))], null, [],
            new("stopped", "", v.Stopped ? words.HaveAgain : words.Stop, null, v.Stopped ? "no" : "yes"), null));
    }
}
