using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;
using SpringLoft.Store.Sealing;

namespace SpringLoft.Server.Hosting;

/// <summary>Seals with the key ring in the data folder's <c>keys/</c>, by the framework's data protection (AES-256 with HMAC-SHA256 at its defaults).</summary>
internal sealed class KeyRingSeal(IDataProtectionProvider keys) : IDataSeal
{
    private const string Program = "spring-loft";
    private readonly IDataProtector protector = keys.CreateProtector("kept in the database");

    /// <summary>Where the keys of a data folder are.</summary>
    internal static DirectoryInfo KeysIn(string folder) => new(Path.Combine(folder, "keys"));

    /// <summary>Sets up the key ring of a data folder, for cookies and for what is kept.</summary>
    internal static void Use(IDataProtectionBuilder building, string folder) => building.PersistKeysToFileSystem(KeysIn(folder)).SetApplicationName(Program);

    /// <summary>The seal of a data folder, for commands that run without a server.</summary>
    internal static KeyRingSeal Of(string folder) => new(DataProtectionProvider.Create(KeysIn(folder), b => b.SetApplicationName(Program)));

    /// <inheritdoc/>
    public string Seal(string clear) => protector.Protect(clear);

    /// <inheritdoc/>
    public string? Open(string kept)
    {
        try { return protector.Unprotect(kept); }
        catch (CryptographicException) { return null; }
    }
}
