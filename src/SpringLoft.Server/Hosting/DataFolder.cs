using System.Globalization;
using SpringLoft.Store;
using SpringLoft.Store.Files;

namespace SpringLoft.Server.Hosting;

/// <summary>Why the program does not start on a data folder: what is wrong, and what to do.</summary>
internal sealed class DataFolderException(string message) : Exception(message);

/// <summary>
/// A data folder that this process has alone, for as long as it lives: the lock is the operating system's, and ends with
/// the process however that ends.
/// </summary>
internal sealed class DataFolder : IDisposable
{
    private readonly FileStream held;

    private DataFolder(string path, FileStream held) => (Path, this.held) = (path, held);

    /// <summary>Where it is.</summary>
    internal string Path { get; }

    /// <summary>The database file in a folder.</summary>
    internal static string DatabaseIn(string folder) => System.IO.Path.Combine(folder, "spring-loft.db");

    /// <summary>The kept files in a folder.</summary>
    internal static string FilesIn(string folder) => System.IO.Path.Combine(folder, "files");

    /// <summary>Takes a folder, made if it is not there, after a look whether what is in it belongs together.</summary>
    /// <exception cref="DataFolderException">Another process has it; its database is lost, damaged or of a newer program.</exception>
    internal static DataFolder Take(string path)
    {
        Directory.CreateDirectory(path);
        // Children's work, and first passwords: for the program's own user and nobody else on the machine.
        if (!OperatingSystem.IsWindows()) File.SetUnixFileMode(path, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        var held = Lock(path);
        try
        {
            var database = DatabaseIn(path);
            switch (DatabaseFile.Look(database))
            {
                case DatabaseState.Newer:
                    throw new DataFolderException($"{database} was made by a newer version of Spring Loft. Start that version, or restore the backup that was made before it was first started.");
                case DatabaseState.Damaged:
                    throw new DataFolderException($"{database} can't be read as a database. Restore it from a backup: docs/running.md, “Backup and restore”.");
                case DatabaseState.Empty when FileStore.HasAny(FilesIn(path)):
                    throw new DataFolderException($"There are files in {FilesIn(path)}, but {(File.Exists(database) ? $"{database} holds no school" : $"there is no {database}")}: the database is lost. Nothing was changed. Restore it from a backup: docs/running.md, “Backup and restore”. For a new school, choose another folder.");
            }
            return new(path, held);
        }
        catch
        {
            held.Dispose();
            throw;
        }
    }

    public void Dispose() => held.Dispose();

    private static FileStream Lock(string path)
    {
        var file = System.IO.Path.Combine(path, "in-use");
        try
        {
            var held = new FileStream(file, FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
            File.WriteAllText(HolderOf(file), string.Create(CultureInfo.InvariantCulture, $"process {Environment.ProcessId} on {Environment.MachineName}, since {DateTime.UtcNow:yyyy-MM-dd HH:mm} UTC"));
            return held;
        }
        catch (IOException) when (File.Exists(file))
        {
            throw new DataFolderException($"Another Spring Loft has the data folder {path}: {Holder(file)}. Stop it first, or start this one with another SPRING_LOFT_DATA.");
        }
    }

    // Beside the lock, as what is locked can't be read.
    private static string HolderOf(string file) => $"{file}.by";

    private static string Holder(string file) => File.Exists(HolderOf(file)) ? File.ReadAllText(HolderOf(file)) : "it does not say which";
}
