using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;

namespace SpringLoft.StandIns;

/// <summary>A person of a class of the other program.</summary>
public sealed record OtherPerson(string Name, string? Email, string Role);

/// <summary>A stand-in for another program in which classes live: asked for a class by its code, it tells its name and people.</summary>
/// <param name="classes">Code to name and people.</param>
public sealed class OtherProgram(IReadOnlyDictionary<string, (string Name, IReadOnlyList<OtherPerson> People)> classes)
{
    /// <summary>What it holds in a demo.</summary>
    public static readonly IReadOnlyDictionary<string, (string Name, IReadOnlyList<OtherPerson> People)> Sample = new Dictionary<string, (string, IReadOnlyList<OtherPerson>)>
    {
        ["HARBOUR7"] = ("Harbour Choir, evening group",
        [
            new("Cáit Brannigan", "cait@skerrypoint.invalid", "teacher"), new("Nikau Eriksen", null, "student"), new("Umi Farquhar", null, "student"), new("Rangi Tuilagi", null, "student"),
            new("Zdeněk Xuereb", null, "student"), new("Thora Windle", "thora@elsewhere.invalid", "student"),
        ]),
    };

    /// <summary>Puts it at an address.</summary>
    public void Map(IEndpointRouteBuilder routes) => routes.MapGet("/classes/{code}", (string code) =>
        classes.TryGetValue(code.Trim().ToUpperInvariant(), out var k) ? Results.Json(new { name = k.Name, people = k.People.Select(p => new { name = p.Name, email = p.Email, role = p.Role }) }) : Results.NotFound()).ExcludeFromDescription();
}
