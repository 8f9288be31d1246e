using System.Text.Json;
using System.Text.Json.Serialization;
using SpringLoft.Core;

namespace SpringLoft.Server.Api;

/// <summary>Ids go over the wire as bare numbers.</summary>
internal sealed class IdJson : JsonConverterFactory
{
    internal static bool IsId(Type type) => type.IsValueType && type.GetInterfaces().Any(i => i.IsGenericType && i.GetGenericTypeDefinition() == typeof(IId<>));

    public override bool CanConvert(Type typeToConvert) => IsId(typeToConvert);

    public override JsonConverter CreateConverter(Type typeToConvert, JsonSerializerOptions options) =>
        (JsonConverter)Activator.CreateInstance(typeof(One<>).MakeGenericType(typeToConvert))!;

    private sealed class One<T> : JsonConverter<T> where T : struct, IId<T>
    {
        public override T Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) => T.From(reader.GetInt64());

        public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) => writer.WriteNumberValue(value.Value);
    }
}
