using SpringLoft.Store.Files;
using SpringLoft.Core.School;
using SpringLoft.Store.Naming;
using SpringLoft.Store.School;

namespace SpringLoft.App.Workspaces;

/// <summary>Streams uploads to the store, with the limits that hold for all of them.</summary>
internal static class FileIntake
{
    /// <param name="student">Whose room it takes; null where staff put it in.</param>
    /// <param name="id">The class it goes into; null for what is of the school.</param>
    internal static async Task<StoredFile> TakeIn(Premises premises, Stream content, string name, PersonId? student, ClassId? id, CancellationToken stop)
    {
        var (limit, room) = premises.Db.Read(c => (SchoolStore.Get(c)!.UploadLimitBytes, RoomFor(c, student, id)));
        if (room is { Left: 0 }) throw new RefusedException(Room.Full(room, name));
        StoredFile file;
        try { file = await premises.Files.TakeIn(content, Math.Min(limit, room?.Left ?? limit), stop).ConfigureAwait(false); }
        catch (FileTooLongException e)
        {
            if (room is not null && room.Left < limit) throw new RefusedException(Room.Full(room, name));
            throw new RefusedException("file-too-long", $"“{name}” is longer than the {e.Limit / (1024 * 1024)} MB that this school allows.", "Make it smaller or link to it instead.", "file");
        }
        if (file.Size == 0) throw new RefusedException("file-empty", $"“{name}” has 0 bytes: there is nothing in it.", "Save it again in the program it was made with, then add it.", "file");
        return file;
    }

    /// <summary>The limit of the school's that is reached first; null if it has set none that holds here.</summary>
    internal static RoomOf? RoomFor(IDbConnection c, PersonId? student, ClassId? id)
    {
        var (rules, _) = RulesStore.Get(c);
        var limits = new List<RoomOf>();
        if (rules.PersonBytes() is { } p && student is { } who) limits.Add(new(Core.School.RoomFor.Student, UsageStore.OfPerson(c, who), p));
        if (rules.ClassBytes() is { } k && id is { } there) limits.Add(new(Core.School.RoomFor.Class, UsageStore.OfClass(c, there), k));
        if (rules.SchoolBytes() is { } s) limits.Add(new(Core.School.RoomFor.School, UsageStore.OfSchool(c), s));
        return Room.Tightest(limits);
    }
}
