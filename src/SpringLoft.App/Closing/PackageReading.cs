using SpringLoft.App.Workspaces;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Bags;
using SpringLoft.Formats.Signatures;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Files;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Closing;

/// <summary>What reading a package again found.</summary>
/// <param name="Fault">Null if it is whole, and everything of the class is in it.</param>
/// <param name="Files">How many were read.</param>
public sealed record PackageSeen(LocalDate Read, int Files, PackageFault? Fault, string? Detail);

/// <summary>A key that the school signs with, or signed with.</summary>
/// <param name="Fingerprint">By which people tell it from another.</param>
/// <param name="Pem">The public key.</param>
/// <param name="Signs">Is it the one that is signed with now?</param>
public sealed record SchoolKeySight(string Fingerprint, string Pem, LocalDate Since, bool Signs);

/// <summary>
/// Reads the packages of the loft again, byte by byte, and compares them with their classes: a slow round by itself, and one
/// at a time when somebody asks.
/// </summary>
public sealed class PackageReading(Premises premises, FileHealth health)
{
    private LocalDate? through;

    /// <summary>Reads one of those that are due today: the others wait for the next time, so that nothing else waits for them.</summary>
    /// <returns>The class whose package was read; null if none is due.</returns>
    public ClassId? Go(CancellationToken stop)
    {
        var today = premises.Clock.Today;
        if (through == today) return null;
        var archives = premises.Db.Read(RunStore.Archives);
        if (PackageRound.Today([.. archives.Select(a => (a.Key, premises.Clock.DateOf(a.Value.LastRead)))], today) is [var id, ..])
        {
            Read(id, archives[id], stop);
            return id;
        }
        through = today;
        return null;
    }

    /// <summary>Reads the package of a class now.</summary>
    public PackageSeen Read(Caller who, ClassId id, CancellationToken stop)
    {
        var package = premises.Db.Read(c =>
        {
            ClassGate.Demand(c, who, id, Act.CloseClass);
            return RunStore.Archives(c).GetValueOrDefault(id) ?? throw new RefusedException("not-found", "This class has no archive package yet.", "Close the class first.");
        });
        return Read(id, package, stop);
    }

    /// <summary>The school's keys, the newest first.</summary>
    public IReadOnlyList<SchoolKeySight> Keys(Caller who)
    {
        ClassGate.Demand(who, Act.KeepLoft);
        return premises.Db.Read(SchoolKeyStore.All).Reverse().Select((k, i) => new SchoolKeySight(SchoolSignature.Fingerprint(k.Public), SchoolSignature.Pem(k.Public), premises.Clock.DateOf(k.MadeAt), i == 0 && k.Secret is not null)).ToList();
    }

    private PackageSeen Read(ClassId id, PackageRow package, CancellationToken stop)
    {
        var (files, found) = Look(id, package, stop);
        premises.Db.Write(c => RunStore.SetRead(c, package.Id, premises.Clock.Now, found));
        // What is not as it was kept is told like any other damaged file; what is only incomplete has no damaged file.
        if (found is { Fault: not PackageFault.Incomplete }) health.Found(package.Sha256);
        return new(premises.Clock.Today, files, found?.Fault, found?.Detail);
    }

    private (int Files, (PackageFault Fault, string Detail)? Found) Look(ClassId id, PackageRow package, CancellationToken stop)
    {
        try
        {
            using var zip = premises.Files.Open(package.Sha256);
            var reading = BagReader.Read(zip, null, stop);
            // A zip is read from place to place: that the whole of it is what was kept is read once more, from its first byte to its last.
            if (reading.Problems.Count == 0) Whole(package.Sha256);
            var inClass = premises.Db.Read(c => ClassStore.Find(c, id)?.State == ClassState.Archived ? ClassContents.Load(c, id).Laid().Files.Select(f => (f.Path, f.File.Sha512)).ToList() : []);
            return (reading.Payload.Count, PackageRound.FaultIn(reading.Problems, inClass, reading.Payload.Values));
        }
        catch (FileNotFoundException) { return (0, (PackageFault.Missing, package.Name)); }
        catch (Exception e) when (e is DamagedFileException or InvalidDataException) { return (0, (PackageFault.Damaged, package.Name)); }
    }

    private void Whole(string sha256)
    {
        using var bytes = premises.Files.Open(sha256);
        bytes.CopyTo(Stream.Null);
    }
}
