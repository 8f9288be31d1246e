using Microsoft.Extensions.Caching.Memory;
using SpringLoft.Formats.Words;

namespace SpringLoft.App.Closing;

/// <summary>The words in files of the store. What was read stays in memory a while: a screen that asks again at each tick does not read them anew.</summary>
public sealed class WordsInFiles(Premises premises) : IDisposable
{
    // Characters of all that is kept at most.
    private const int Most = 32_000_000;
    private readonly MemoryCache read = new(new MemoryCacheOptions { SizeLimit = Most });

    /// <summary>What is written in a file.</summary>
    public FileWords Of(string sha) => read.GetOrCreate(sha, entry =>
    {
        using var file = premises.Files.Open(sha);
        var words = FileWords.Read(file);
        entry.Size = words.Text.Length + 100;
        entry.SlidingExpiration = TimeSpan.FromMinutes(20);
        return words;
    })!;

    public void Dispose() => read.Dispose();
}
