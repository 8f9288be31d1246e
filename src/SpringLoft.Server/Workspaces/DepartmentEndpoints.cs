using SpringLoft.App;
using SpringLoft.App.Workspaces;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.Workspaces;

internal sealed record DepartmentBody(string? Name, string? Mark, IReadOnlyList<PersonId>? Members);

internal sealed record TakingBody(IReadOnlyList<AssignmentId>? Assignments, IReadOnlyList<ItemId>? Items);

internal sealed record Taken(int Copies);

internal static class DepartmentEndpoints
{
    internal static void Map(RouteGroupBuilder api, RouteGroupBuilder k)
    {
        api.MapGet("/departments", (Caller who, Departments departments) => departments.All(who)).WithName("departments").Needs(Act.SeeBoard);
        api.MapPost("/departments", (DepartmentBody body, Caller who, Departments departments) => new Made(departments.Make(who, body.Name, body.Mark, body.Members ?? []).Value)).WithName("makeDepartment").Needs(Act.MakeClass);
        k.MapGet("/bank-copies", (long classId, Departments departments) => departments.OffersOf(new(classId))).WithName("bankCopies").Needs(Act.Arrange);
        k.MapGet("/bank-offers", (long classId, Departments departments) => departments.OffersTo(new(classId))).WithName("bankOffers").Needs(Act.Arrange);
        k.MapPost("/bank-offers/taking", (long classId, TakingBody body, Caller who, Departments departments) =>
            new Taken(departments.Take(who, new(classId), body.Assignments ?? [], body.Items ?? []))).WithName("takeFromBank").Needs(Act.Arrange);
    }
}
