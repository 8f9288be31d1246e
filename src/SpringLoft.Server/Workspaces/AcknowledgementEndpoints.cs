using NodaTime;
using SpringLoft.App;
using SpringLoft.App.Workspaces;
using SpringLoft.Core;
using SpringLoft.Core.Letters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Print;
using SpringLoft.Server.Api;
using SpringLoft.Server.Letters;
using SpringLoft.Store.Naming;

namespace SpringLoft.Server.Workspaces;

internal sealed record AsksBody(AskedOf? Of, LocalDate? Until);

internal sealed record SignedPaper(string? Name);

internal static class AcknowledgementEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        var k = api.MapGroup("/classes/{classId:long}");
        k.MapPut("/items/{itemId:long}/asks", (long classId, long itemId, AsksBody body, Caller who, Acknowledgements a) =>
        {
            a.Ask(who, new(classId), new(itemId), body.Of is { } of ? new(of, body.Until) : null);
            return TypedResults.NoContent();
        }).WithName("askToAcknowledge").Needs(Act.KeepAcknowledgements);
        var all = k.MapGroup("/acknowledgements");
        all.MapGet("", (long classId, Caller who, Acknowledgements a) => a.Of(who, new(classId))).WithName("acknowledgements").Needs(Act.KeepAcknowledgements);
        var one = all.MapGroup("/{askingId:long}");
        one.MapGet("", (long classId, long askingId, Caller who, Acknowledgements a) => a.See(who, new(classId), askingId)).WithName("acknowledgementsOf").Needs(Act.KeepAcknowledgements);
        one.MapPost("", (long classId, long askingId, Caller who, Acknowledgements a) =>
        {
            a.Say(who, new(classId), askingId);
            return TypedResults.NoContent();
        }).WithName("acknowledge").Needs(Act.Acknowledge);
        one.MapPost("/anew", (long classId, long askingId, Caller who, Acknowledgements a) =>
        {
            a.Anew(who, new(classId), askingId);
            return TypedResults.NoContent();
        }).WithName("askAnew").Needs(Act.KeepAcknowledgements);
        one.MapPost("/reminders", (long classId, long askingId, Caller who, Acknowledgements a) => a.Remind(who, new(classId), askingId)).WithName("remindToAcknowledge").Needs(Act.KeepAcknowledgements);
        one.MapPut("/papers/{personId:long}", (long classId, long askingId, long personId, SignedPaper body, Caller who, Acknowledgements a) =>
        {
            a.NotePaper(who, new(classId), askingId, new(personId), body.Name);
            return TypedResults.NoContent();
        }).WithName("noteSignedPaper").Needs(Act.KeepAcknowledgements);
        one.MapDelete("/papers/{personId:long}", (long classId, long askingId, long personId, Caller who, Acknowledgements a) =>
        {
            a.TakeBackNoted(who, new(classId), askingId, new(personId));
            return TypedResults.NoContent();
        }).WithName("takeBackSignedPaper").Needs(Act.KeepAcknowledgements);
        // It makes codes where there are none: no address that a browser fetches ahead.
        one.MapPost("/papers", (long classId, long askingId, Paper? paper, Caller who, Acknowledgements a, Premises premises, SchoolAddress address) => Uploads.Send(Print(a.Papers(who, new(classId), askingId), premises, address, paper ?? Paper.A4)))
            .WithName("printPapersForHomes").SendsFile().AnswerIsNotKept().Needs(Act.KeepAcknowledgements);
    }

    /// <summary>The pages that open at home, without an account. Nothing of them is kept by a browser that is shared.</summary>
    internal static void MapPages(WebApplication app)
    {
        app.MapGet("/home", (HttpContext context, Premises premises) => Typing(context, premises, null, 200)).ExcludeFromDescription();
        app.MapPost("/home", async (HttpContext context) =>
        {
            var code = Acknowledging.ReadCode(await HomePages.Typed(context, "code"));
            return Results.Redirect(code is null ? "/home/-" : $"/home/{code}");
        }).ExcludeFromDescription();
        app.MapGet("/home/{code}", (string code, HttpContext context, AtHome home, Premises premises) => Opened(code, context, home, premises, null)).ExcludeFromDescription();
        app.MapPost("/home/{code}", async (string code, HttpContext context, AtHome home, Premises premises) =>
        {
            var name = await HomePages.Typed(context, "name");
            string? trouble = null;
            try { home.Say(code, name, HomePages.From(context)); }
            catch (RefusedException e) when (e.Refusal.Field == "name") { trouble = e.Refusal.Code == "missing" ? HomePages.Words(context).NameMissing : $"{e.Refusal.What} {e.Refusal.Mend}"; }
            catch (RefusedException e) { return Typing(context, premises, Said(e, HomePages.Words(context)), Problems.StatusOf(e.Refusal.Code)); }
            return trouble is null ? Results.Redirect($"/home/{Uri.EscapeDataString(code)}{context.Request.QueryString}") : Opened(code, context, home, premises, trouble);
        }).ExcludeFromDescription();
        app.MapGet("/home/{code}/file", (string code, HttpContext context, AtHome home) =>
        {
            HomePages.KeptNowhere(context);
            return Uploads.Send(home.Open(code, HomePages.From(context)));
        }).ExcludeFromDescription();
        app.MapGet("/home/{code}/files/{fileId:long}", (string code, long fileId, HttpContext context, AtHome home) =>
        {
            HomePages.KeptNowhere(context);
            return Uploads.Send(home.Open(code, HomePages.From(context), fileId));
        }).ExcludeFromDescription();
    }

    private static IResult Opened(string code, HttpContext context, AtHome home, Premises premises, string? trouble)
    {
        var words = HomePages.Words(context);
        AtHomeView v;
        try { v = home.See(code, HomePages.From(context)); }
        catch (RefusedException e) { return Typing(context, premises, Said(e, words), Problems.StatusOf(e.Refusal.Code)); }
        List<(string, string)> links = [.. v.Files.Select(f => (f.OfNotice is { } one ? $"/home/{Uri.EscapeDataString(code)}/files/{one}" : $"/home/{Uri.EscapeDataString(code)}/file", words.OpenFile(f.Name)))];
        if (v.Url is { } url) links.Add((url, words.OpenFile(url)));
        List<string> lines = [words.AboutWhom(v.Student), words.AsksYou(v.AskedBy)];
        if (v is { Until: { } until, SaidBy: null }) lines.Add(words.Until(until));
        return HomePages.Send(context, trouble is null ? 200 : 422, HomePage.Write(words.Code, $"{v.School}, {v.ClassName}", v.Title ?? v.ClassName, lines, v.Text is { } t ? new(t, Lines: v.Title is null) : null, links,
            new("name", words.YourName, words.IHaveRead, trouble), v.SaidBy is { } by ? words.Said(by.Length == 0 ? "✓" : by, v.SaidOn!.Value) : null));
    }

    private static IResult Typing(HttpContext context, Premises premises, string? trouble, int status)
    {
        var words = HomePages.Words(context);
        return HomePages.Send(context, status, HomePage.Write(words.Code, premises.Db.Read(c => SchoolStore.Get(c)?.Name), words.TypeCode, [], null, [], new("code", words.CodeLabel, words.Open, trouble), null, "/home"));
    }

    private static string Said(RefusedException e, HomeWords words) => e.Refusal.Code == "home-slow" ? words.TooMany : words.CodeWrong;

    private static Download Print(HomePapers p, Premises premises, SchoolAddress address, Paper paper)
    {
        var file = premises.Files.Scratch();
        HomeSheet.Write(file, [.. p.Papers.Select(x => new PrintedHome(x.Name, x.Grade, x.Code, address.To($"home/{x.Code}").ToString()))], p.School, p.ClassName, p.Title, p.Until is { } day ? HomeWords.All[0].Until(day) : null, address.To("home").ToString(), paper);
        file.Position = 0;
        return new Download("papers for homes.pdf", file, file.Length);
    }
}
