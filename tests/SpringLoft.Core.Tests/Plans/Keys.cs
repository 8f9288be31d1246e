using SpringLoft.Core.Plans;

namespace SpringLoft.Core.Tests.Plans;

/// <summary>Keys of folders written short, for tests.</summary>
internal static class Keys
{
    /// <summary>The key with this text; null for null.</summary>
    internal static FolderKey? Key(string? text) => text is null ? null : FolderKey.Parse(text);
}
