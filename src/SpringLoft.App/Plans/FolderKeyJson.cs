using System.Text.Json;
using System.Text.Json.Serialization;
using SpringLoft.Core.Plans;

namespace SpringLoft.App.Plans;

/// <summary>Keys of folders in what is kept of a put, as their text.</summary>
internal sealed class FolderKeyJson : JsonConverter<FolderKey>
{
    /// <inheritdoc/>
    public override FolderKey Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) => FolderKey.Parse(reader.GetString()!);

    /// <inheritdoc/>
    public override void Write(Utf8JsonWriter writer, FolderKey value, JsonSerializerOptions options) => writer.WriteStringValue(value.Text);
}
