namespace SpringLoft.Store.Sealing;

/// <summary>Makes of a text one that says nothing to whoever has the database file and not the keys.</summary>
public interface IDataSeal
{
    /// <summary>Seals a text.</summary>
    string Seal(string clear);

    /// <summary>What was sealed; null if the keys for it are gone.</summary>
    string? Open(string kept);
}

/// <summary>Seals nothing: for a database that no key ring belongs to, as tests and benches have.</summary>
public sealed class NoSeal : IDataSeal
{
    /// <inheritdoc/>
    public string Seal(string clear) => clear;

    /// <inheritdoc/>
    public string? Open(string kept) => kept;
}
