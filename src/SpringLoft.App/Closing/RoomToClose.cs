using System.Globalization;
using SpringLoft.Core.Closing;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Closing;

/// <summary>How much room and time closing some classes takes.</summary>
/// <param name="Needed">At most, in bytes.</param>
/// <param name="Free">On the disk of the file store, in bytes.</param>
/// <param name="Fits">False if it would leave too little: it is not begun then.</param>
/// <param name="Seconds">About, as runs of before went; null where none did.</param>
public sealed record ClosingRoomView(int Classes, long Needed, long Free, bool Fits, long? Seconds);

/// <summary>Looks whether the disk has room for the packages of some classes, before the first of them is made.</summary>
internal static class RoomToClose
{
    internal static ClosingRoomView Of(IDbConnection c, Premises premises, IEnumerable<ClassRow> classes)
    {
        var sizes = classes.Select(k => ClosingStore.FilesOf(c, k.Id).Bytes).ToList();
        var (needed, free) = (ClosingRoom.Needed(sizes.Count, sizes.Sum()), premises.Files.Free);
        return new(sizes.Count, needed, free, ClosingRoom.Fits(needed, free), (long?)ClosingRoom.Takes(sizes.Count, sizes.Sum(), RunStore.LastEnded(c, 5))?.TotalSeconds);
    }

    /// <exception cref="RefusedException"><c>disk-too-small</c>.</exception>
    internal static void Demand(IDbConnection c, Premises premises, IEnumerable<ClassRow> classes)
    {
        if (Of(c, premises, classes) is { Fits: false } room)
            throw new RefusedException("disk-too-small", $"Closing takes up to {Megabytes(room.Needed)} here, and {Megabytes(room.Free)} are free on the disk.", $"Make room, so that {Megabytes(ClosingRoom.Reserve)} stay free, or close fewer classes at once.", "classes");
    }

    private static string Megabytes(long bytes) => string.Create(CultureInfo.InvariantCulture, $"{Math.Ceiling(bytes / 1e6):N0} MB");
}
