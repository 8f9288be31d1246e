using SpringLoft.App;
using SpringLoft.App.Workspaces;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.Workspaces;

internal sealed record PastedBody(string? Text);

internal sealed record MadeMany(IReadOnlyList<ClassId> Classes);

internal static class ClassTableEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapPost("/class-table/reading", (PastedBody body, MakingMany making) => making.Read(body.Text)).WithName("readClassTable").Needs(Act.MakeClass);
        api.MapPost("/class-table/preview", (ClassTableDraft body, Caller who, MakingMany making) => making.Preview(who, body)).WithName("previewClassTable").Needs(Act.MakeClass);
        api.MapPost("/class-table", (ClassTableDraft body, Caller who, MakingMany making) => new MadeMany(making.Make(who, body))).WithName("makeClassTable").Needs(Act.MakeClass);
    }
}
