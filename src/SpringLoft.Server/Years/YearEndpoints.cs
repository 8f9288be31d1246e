using NodaTime;
using NodaTime.Text;
using SpringLoft.App;
using SpringLoft.App.Audit;
using SpringLoft.App.Years;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;
using SpringLoft.Server.Workspaces;

namespace SpringLoft.Server.Years;

internal sealed record DateBody(LocalDate Today);

internal sealed record YearBody(YearDraft? Calendar, int Version);

internal sealed record CalendarText(long? Year, string? Text);

internal sealed record CalendarLink(string Address);

internal static class YearEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/school", (YearLine line) => line.See()).WithName("school").Needs(Act.SeeOwnClasses);

        api.MapGet("/board", (Caller who, YearBoard board, long? year, long? combined) => board.See(who, year is { } y ? new YearId(y) : null, combined)).WithName("board").Needs(Act.SeeBoard);

        api.MapPost("/demo/date", (DateBody body, Caller who, YearLine line) =>
        {
            line.MoveDate(who, body.Today);
            return TypedResults.NoContent();
        }).WithName("moveDate").Needs(Act.MoveDate);

        api.MapGet("/years", (YearDesk desk) => desk.See()).WithName("years").Needs(Act.SeeBoard);
        api.MapGet("/years/next-draft", (YearDesk desk) => desk.NextDraft()).WithName("nextYearDraft").Needs(Act.LayDownYear);
        api.MapPost("/years/preview", (YearDraft body, long? year, YearDesk desk) => desk.Preview(Id(year), body)).WithName("previewYear").Needs(Act.LayDownYear);
        api.MapPost("/years", (YearDraft body, Caller who, YearDesk desk) => new Made(desk.Add(who, body).Value)).WithName("addYear").Needs(Act.LayDownYear);
        api.MapPut("/years/{yearId:long}", (long yearId, YearBody body, Caller who, YearDesk desk) =>
        {
            desk.Change(who, new(yearId), body.Version, body.Calendar ?? throw new RefusedException("missing", "The calendar is missing.", "Send it whole.", "calendar"));
            return TypedResults.NoContent();
        }).WithName("changeYear").Needs(Act.LayDownYear);
        api.MapPost("/years/calendar-reading", (CalendarText body, YearDesk desk) => desk.ReadFile(Id(body.Year), body.Text ?? "")).WithName("readCalendar")
            .WithMetadata(new Microsoft.AspNetCore.Mvc.RequestSizeLimitAttribute(12 * 1024 * 1024)).Needs(Act.LayDownYear);
        api.MapGet("/years/{yearId:long}/calendar.ics", (long yearId, YearDesk desk) =>
        {
            var (name, text) = desk.WriteFile(new(yearId));
            return Results.File(System.Text.Encoding.UTF8.GetBytes(text), "text/calendar", name);
        }).WithName("yearCalendar").Produces<Stream>(StatusCodes.Status200OK, "text/calendar").Needs(Act.SeeBoard);

        api.MapGet("/calendars/{file}", (string file, ClassCalendars calendars) =>
        {
            var (name, text) = calendars.Feed(file.EndsWith(".ics", StringComparison.Ordinal) ? file[..^4] : file);
            return Results.File(System.Text.Encoding.UTF8.GetBytes(text), "text/calendar", name);
        }).WithName("classCalendar").Produces<Stream>(StatusCodes.Status200OK, "text/calendar").OpenToAnybody();
        api.MapPost("/classes/{classId:long}/calendar", (long classId, Caller who, ClassCalendars calendars) =>
            new CalendarLink(calendars.Make(who, new(classId)))).WithName("makeClassCalendar").Needs(Act.Arrange);
        api.MapDelete("/classes/{classId:long}/calendar", (long classId, Caller who, ClassCalendars calendars) =>
        {
            calendars.Retire(who, new(classId));
            return TypedResults.NoContent();
        }).WithName("retireClassCalendar").Needs(Act.Arrange);

        api.MapGet("/audit", (AuditTrail trail, long? before, long? classId, string? text, string? day) =>
            trail.See(before, classId is { } k ? new ClassId(k) : null, text, Day(day))).WithName("audit").Needs(Act.SeeAudit);
        api.MapGet("/audit/check", (AuditTrail trail) => trail.Check()).WithName("checkAudit").Needs(Act.SeeAudit);
    }

    internal static LocalDate? Day(string? text) => string.IsNullOrEmpty(text) ? null : LocalDatePattern.Iso.Parse(text) is { Success: true } day ? day.Value
        : throw new RefusedException("bad-request", $"“{text}” is no day.", "Write it like 2027-06-07.", "day");

    private static YearId? Id(long? year) => year is { } y ? new YearId(y) : null;
}
