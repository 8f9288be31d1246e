using System.Globalization;
using SpringLoft.Store;
using SpringLoft.Store.Files;

namespace SpringLoft.Server.Hosting;

/// <summary>Reads the database and every kept file, and says what is missing or damaged. Changes nothing; may run beside the program.</summary>
internal static class Verify
{
    /// <summary>0 if all is whole, 1 if something is not, 2 if there is nothing to read.</summary>
    internal static int Run(string data, TextWriter says)
    {
        var database = DataFolder.DatabaseIn(data);
        if (DatabaseFile.Look(database) is var state and not DatabaseState.School)
        {
            says.WriteLine(state switch
            {
                DatabaseState.Newer => $"{database} was made by a newer version of Spring Loft.",
                DatabaseState.Damaged => $"{database} can't be read as a database.",
                _ => $"There is no school in {data}.",
            });
            return state == DatabaseState.Damaged ? 1 : 2;
        }
        var wrong = 0;
        foreach (var fault in DatabaseFile.Check(database))
        {
            says.WriteLine($"database: {fault}");
            wrong++;
        }
        var (files, bytes) = (0, 0L);
        foreach (var (sha, size) in DatabaseFile.Files(database))
        {
            files++;
            bytes += size;
            if (FileStore.FaultOf(DataFolder.FilesIn(data), sha, size) is not { } fault) continue;
            says.WriteLine($"file {sha}: {fault switch { FileFault.Missing => "missing", FileFault.Length => "not as long as it was", _ => "damaged" }}");
            wrong++;
        }
        if (DatabaseFile.CheckAudit(database) is { } audit)
        {
            if (audit.Wrong is { } line) says.WriteLine($"audit trail: line {line} is not as it was written, or lines before it are missing");
            else if (audit.CutOff) says.WriteLine("audit trail: its newest lines are missing");
            else says.WriteLine(string.Create(CultureInfo.InvariantCulture, $"audit trail: {audit.Lines} lines in an unbroken chain, the last with the hash {audit.LastHash}"));
            if (!audit.Whole) wrong++;
        }
        says.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{files} files, {bytes} bytes and the database were read: {(wrong == 0 ? "all whole" : $"{wrong} faults")}."));
        return wrong == 0 ? 0 : 1;
    }
}
