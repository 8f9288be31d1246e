using System.Collections;
using System.Collections.Concurrent;
using System.Reflection;
using Microsoft.Net.Http.Headers;
using SpringLoft.Core;

namespace SpringLoft.Server.Api;

/// <summary>
/// Refuses bodies in which something is null that the contract says is never null: a list with a hole in it, a part that is
/// missing. What a type says of itself is held here once, so that no use case has to ask.
/// </summary>
internal static class WholeBodies
{
    private static readonly ConcurrentDictionary<Type, Part[]> Known = new();
    private static readonly NullabilityInfoContext Nullability = new();

    private sealed record Part(string Name, PropertyInfo Property, bool MayBeNull, bool ElementsMayBeNull);

    /// <summary>Holds for every endpoint of the group.</summary>
    internal static RouteGroupBuilder TakesWholeBodies(this RouteGroupBuilder api)
    {
        api.AddEndpointFilterFactory((context, next) =>
        {
            var bodies = context.MethodInfo.GetParameters().Select((p, i) => (p.ParameterType, i)).Where(p => IsOurs(p.ParameterType)).Select(p => p.i).ToList();
            if (bodies.Count == 0) return next;
            return invocation =>
            {
                foreach (var i in bodies) if (invocation.Arguments[i] is { } body) Check(body, "");
                return next(invocation);
            };
        });
        return api;
    }

    /// <summary>Refuses JSON in an encoding that there is not.</summary>
    internal static Task Encodings(HttpContext context, RequestDelegate next)
    {
        if (context.Request.ContentType is { } type && MediaTypeHeaderValue.TryParse(type, out var media) && media.Charset is { Length: > 0 } charset && media.Encoding is null)
            return Problems.Write(context, 415, new("type-wrong", $"“{charset}” is no encoding of text that is known here.", "Send JSON as application/json, in UTF-8."));
        return next(context);
    }

    private static void Check(object value, string path)
    {
        foreach (var part in Known.GetOrAdd(value.GetType(), Parts))
        {
            var at = path.Length == 0 ? part.Name : $"{path}.{part.Name}";
            switch (part.Property.GetValue(value))
            {
                case null when part.MayBeNull: break;
                case null: throw Missing(at);
                case string: break;
                case IEnumerable many:
                    var i = 0;
                    foreach (var one in many)
                    {
                        if (one is null && !part.ElementsMayBeNull) throw Missing($"{at}[{i}]");
                        if (one is not null && IsOurs(one.GetType())) Check(one, $"{at}[{i}]");
                        i++;
                    }
                    break;
                case { } inner when IsOurs(inner.GetType()): Check(inner, at); break;
            }
        }
    }

    private static RefusedException Missing(string field) => new("missing", $"“{field}” is missing: it may not be empty.", "Send it with a value.", field);

    // Our records are what bodies are made of; our other classes are use cases.
    private static bool IsOurs(Type type) => type is { IsClass: true, Namespace: { } room } && room.StartsWith("SpringLoft.", StringComparison.Ordinal) && type.GetMethod("<Clone>$") is not null;

    private static Part[] Parts(Type type)
    {
        lock (Nullability)
        {
            return [.. type.GetProperties(BindingFlags.Public | BindingFlags.Instance).Where(p => p.GetIndexParameters().Length == 0 && p.SetMethod is not null && !p.PropertyType.IsValueType).Select(p =>
            {
                var says = Nullability.Create(p);
                var element = says.ElementType ?? says.GenericTypeArguments.LastOrDefault();
                return new Part(char.ToLowerInvariant(p.Name[0]) + p.Name[1..], p, says.ReadState == NullabilityState.Nullable, element is null or { ReadState: NullabilityState.Nullable } or { Type.IsValueType: true });
            })];
        }
    }
}
