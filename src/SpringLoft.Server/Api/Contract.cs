using System.Text.Json.Serialization;
using Microsoft.OpenApi;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;

namespace SpringLoft.Server.Api;

/// <summary>How things look on the wire, and the OpenAPI document that says so.</summary>
internal static class Contract
{
    internal static void Add(IServiceCollection services)
    {
        services.ConfigureHttpJsonOptions(o =>
        {
            o.SerializerOptions.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
            o.SerializerOptions.Converters.Add(new IdJson());
            // A choice has a name: a number would be kept as one that nobody can read again.
            o.SerializerOptions.Converters.Add(new JsonStringEnumConverter(namingPolicy: null, allowIntegerValues: false));
            o.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
            // What the contract calls required is: a body without it means nothing, not "none of them".
            o.SerializerOptions.RespectRequiredConstructorParameters = true;
        });
        services.AddOpenApi(o =>
        {
            o.AddSchemaTransformer((schema, context, _) =>
            {
                var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
                // A nullable enum would make its component nullable everywhere; the property says null, not the enum.
                if (type.IsEnum && schema.Enum is { } values) schema.Enum = [.. values.Where(v => v is not null)];
                if (context.JsonTypeInfo.ElementType is { } element && IdJson.IsId(element))
                    schema.Items = new OpenApiSchema { Type = JsonSchemaType.Integer, Format = "int64" };
                var orNull = type == context.JsonTypeInfo.Type ? default : JsonSchemaType.Null;
                // Like an enum: where an id may be missing, the property says so, not the component that all share.
                if (IdJson.IsId(type)) (schema.Type, schema.Format) = (JsonSchemaType.Integer, "int64");
                else if (type == typeof(LocalDateTime)) (schema.Type, schema.Format) = (JsonSchemaType.String | orNull, null);
                else if (type == typeof(LocalTime)) (schema.Type, schema.Format) = (JsonSchemaType.String | orNull, "time");
                else if (type == typeof(LocalDate)) (schema.Type, schema.Format) = (JsonSchemaType.String | orNull, "date");
                else if (type == typeof(Instant)) (schema.Type, schema.Format) = (JsonSchemaType.String | orNull, "date-time");
                else return Task.CompletedTask;
                schema.Properties?.Clear();
                schema.Required?.Clear();
                return Task.CompletedTask;
            });
            o.AddDocumentTransformer((document, _, _) =>
            {
                document.Info = new() { Title = "Spring Loft", Version = "1", Description = "Class workspaces through a school year. Errors are Problem Details (RFC 9457) with a stable code; see docs/errors.md." };
                document.Servers = [];
                return Task.CompletedTask;
            });
        });
    }
}
