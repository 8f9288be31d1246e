using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.OneRoster;
using SpringLoft.Store.Files;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>A site or shared material of the school's list.</summary>
/// <param name="Classes">In how many classes it is used now.</param>
public sealed record SharedThing(ResourceId Id, string Title, string? Url, string? FileName, long? Size, ForWhom ForWhom, IReadOnlyList<string> Grades, IReadOnlyList<string> Courses, int Classes, int Version);

/// <summary>How one is to be.</summary>
public sealed record SharedThingDraft(string? Title, string? Url, ForWhom ForWhom, IReadOnlyList<string>? Grades, IReadOnlyList<string>? Courses, int Version);

/// <summary>One of the list as it stands to a class.</summary>
/// <param name="WhyNot">Why the class may not use it; null if it may.</param>
public sealed record OfferedThing(ResourceId Id, string Title, string? Url, string? FileName, ForWhom ForWhom, bool Used, string? WhyNot);

/// <summary>What a bundle of resources would do, or did.</summary>
public sealed record ResourcesRead(int Added, int Changed, int Same, int Removed, IReadOnlyList<RowFinding> Findings);

/// <summary>The school's list of sites and shared materials, and what of it each class uses.</summary>
public sealed class SharedThings(Premises premises)
{
    /// <summary>The whole list.</summary>
    public IReadOnlyList<SharedThing> All() => premises.Db.Read(c =>
    {
        var uses = ResourceStore.Uses(c);
        return ResourceStore.All(c).Select(r => new SharedThing(r.Id, r.Title, r.Url, r.FileName, r.Size, r.ForWhom, ResourceRow.Lines(r.Grades), ResourceRow.Lines(r.Courses), uses.GetValueOrDefault(r.Id), r.Version)).ToList();
    });

    /// <summary>Adds a site.</summary>
    public ResourceId Add(Caller by, SharedThingDraft draft) => premises.Db.Write(c =>
    {
        var row = Checked(c, draft, null) with { Url = Items.WebAddress(draft.Url), SourceId = Guid.NewGuid().ToString() };
        return Added(c, by, row);
    });

    /// <summary>Adds a shared material: a file that classes use without copying it.</summary>
    public async Task<ResourceId> AddFile(Caller by, string? name, Stream content, CancellationToken stop)
    {
        var safe = Items.CheckName(name);
        var file = await FileIntake.TakeIn(premises, content, safe.Name, null, null, stop).ConfigureAwait(false);
        return premises.Db.Write(c =>
        {
            ItemStore.AddBlob(c, file, premises.Clock.Now);
            var taken = ResourceStore.All(c).Select(r => SafeName.Key(r.Title)).ToHashSet();
            return Added(c, by, new ResourceRow { Title = SafeName.Distinct(Path.GetFileNameWithoutExtension(safe.Name), taken, isFile: false), FileName = safe.Name, Sha256 = file.Sha256, ForWhom = ForWhom.Everybody, SourceId = Guid.NewGuid().ToString() });
        });
    }

    /// <summary>Changes one, at the version that was seen. A material's file stays.</summary>
    public void Change(Caller by, ResourceId id, SharedThingDraft draft) => premises.Db.Write(c =>
    {
        var row = ResourceStore.Find(c, id) ?? throw Refusals.NotFound("site or material");
        var next = Checked(c, draft, id);
        if (!ResourceStore.Save(c, row with { Title = next.Title, ForWhom = next.ForWhom, Grades = next.Grades, Courses = next.Courses, Url = row.Sha256 is null ? Items.WebAddress(draft.Url) : null, Version = draft.Version }))
            throw Refusals.ChangedMeanwhile("site or material");
        Premises.Add(c, by, premises.Clock.Now, new("changed shared thing", "resource", id.Value, null, next.Title));
    });

    /// <summary>Takes one off the list, or puts it back. Classes that use it no longer show it; put back, they do again.</summary>
    public void SetBinned(Caller by, ResourceId id, bool binned) => premises.Db.Write(c =>
    {
        if (binned && ResourceStore.Find(c, id) is null) throw Refusals.NotFound("site or material");
        if (!binned && ResourceStore.TitleOf(c, id) is { } back && ResourceStore.All(c).Any(r => r.Id != id && SafeName.Clash(r.Title, back)))
            throw new RefusedException("name-taken", $"There is another “{back}” on the list by now.", "Give that one another title, then bring this one back.", "title");
        ResourceStore.SetBinned(c, id, binned ? premises.Clock.Now : null);
        var row = ResourceStore.Find(c, id);
        if (!binned && row is null) throw Refusals.NotFound("site or material");
        Premises.Add(c, by, premises.Clock.Now, new(binned ? "binned" : "brought back", "resource", id.Value, null, row?.Title ?? ""));
    });

    /// <summary>The list as it stands to a class: what it uses, what it may, what is for others.</summary>
    public IReadOnlyList<OfferedThing> For(ClassId id) => premises.Db.Read(c => Offered(c, id));

    /// <summary>Says which of the list a class uses.</summary>
    public void Use(Caller by, ClassId id, IReadOnlyList<ResourceId> things) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        var offered = Offered(c, id).ToDictionary(o => o.Id);
        foreach (var t in things)
        {
            if (!offered.TryGetValue(t, out var o)) throw Refusals.NotFound("site or material");
            // What is used already stays allowed, though the list has changed since.
            if (o.WhyNot is not null && !o.Used) throw new RefusedException("resource-for-others", $"“{o.Title}” is {o.WhyNot}.", "Ask the coordinator to open it to this class.", "things");
        }
        ResourceStore.SetUsed(c, id, things);
        Premises.Add(c, by, premises.Clock.Now, new("chose what students may use", "class", id.Value, id, string.Join(", ", things.Select(t => offered[t].Title))));
    });

    /// <summary>Opens a shared material for somebody in a class that uses it, or for any staff.</summary>
    public Download Open(Caller who, ResourceId id) => premises.Db.Read(c =>
    {
        var row = ResourceStore.Find(c, id);
        var allowed = who.Role != SchoolRole.Student || (row is not null && ResourceFit.StudentsSee(row.ForWhom) && ClassStore.OfPerson(c, who.Id).Any(k =>
            ClassGate.Find(c, who, k.Id).Standing == Standing.Student && Visible(k) && ResourceStore.OfClass(c, k.Id).Any(r => r.Id == id)));
        if (row?.Sha256 is not { } sha || !allowed) throw Refusals.NotFound("material");
        return new Download(row.FileName!, premises.Files.Open(sha), row.Size ?? 0);
    });

    /// <summary>Reads a bundle of resources as OneRoster has them; says what it does, and does it on a yes.</summary>
    /// <param name="apply">False to only say what would be done.</param>
    public async Task<ResourcesRead> Read(Caller by, Stream content, bool apply, CancellationToken stop)
    {
        using var scratch = premises.Files.Scratch();
        await content.CopyToAsync(scratch, stop).ConfigureAwait(false);
        if (scratch.Length > 100 * 1024 * 1024) throw new RefusedException("file-too-long", "The bundle is longer than 100 MB.", "Export the resources alone.", "file");
        scratch.Position = 0;
        var (resources, findings) = OneRosterResources.Read(scratch);
        return apply ? premises.Db.Write(c => Take(c, by, resources, findings, true)) : premises.Db.Read(c => Take(c, by, resources, findings, false));
    }

    /// <summary>The list, and which classes of a year use what, as a OneRoster bundle.</summary>
    public Download Export(YearId year) => premises.Db.Read(c =>
    {
        var bytes = new MemoryStream();
        var classes = ClassStore.OfYear(c, year).Select(k => k.Id).ToHashSet();
        OneRosterResources.Write(bytes, ResourceStore.All(c).Select(r => new OneRosterResource(r.SourceId, r.Title, r.VendorResourceId ?? r.Url ?? r.FileName ?? r.Title, r.ForWhom == ForWhom.StaffOnly ? "teacher" : "student,teacher", r.VendorId, false, 0)),
            ResourceStore.UsesOfYear(c, year).Where(u => classes.Contains(u.Class)).Select(u => new OneRosterClassResource($"class-{u.Class.Value}-{u.SourceId}", $"class-{u.Class.Value}", u.SourceId)), premises.Clock.Now);
        bytes.Position = 0;
        return new Download("oneroster-resources.zip", bytes, bytes.Length);
    });

    private ResourcesRead Take(IDbConnection c, Caller by, IReadOnlyList<OneRosterResource> resources, IReadOnlyList<RowFinding> findings, bool apply)
    {
        var found = findings.ToList();
        var there = ResourceStore.All(c);
        var bySource = there.ToDictionary(r => r.SourceId, StringComparer.Ordinal);
        var titles = there.ToDictionary(r => SafeName.Key(r.Title), r => r.SourceId);
        int added = 0, changed = 0, same = 0, removed = 0;
        foreach (var r in resources)
        {
            var known = bySource.GetValueOrDefault(r.SourcedId);
            if (r.Deleted)
            {
                if (known is null) continue;
                removed++;
                if (apply) ResourceStore.SetBinned(c, known.Id, premises.Clock.Now);
                continue;
            }
            var isWeb = Uri.TryCreate(r.VendorResourceId, UriKind.Absolute, out var address) && address.Scheme is "http" or "https";
            if (r.Title.Length > 120) { found.Add(new("resources.csv", r.Line, "title", $"has {r.Title.Length} characters; 120 are the most: the row is left out.")); continue; }
            if (titles.TryGetValue(SafeName.Key(r.Title), out var holder) && holder != r.SourcedId) { found.Add(new("resources.csv", r.Line, "title", $"“{r.Title}” is on the list already: the row is left out.")); continue; }
            if (!isWeb && known is null) found.Add(new("resources.csv", r.Line, "vendorResourceId", $"“{r.VendorResourceId}” is no address of the web: “{r.Title}” comes without one; give it one on the list."));
            titles[SafeName.Key(r.Title)] = r.SourcedId;
            var next = (known ?? new ResourceRow { SourceId = r.SourcedId }) with
            {
                Title = r.Title,
                Url = isWeb ? address!.AbsoluteUri : known?.Url,
                VendorId = r.VendorId ?? known?.VendorId,
                // What went out under its address comes in as the same.
                VendorResourceId = known is { VendorResourceId: null } && (r.VendorResourceId == known.Url || r.VendorResourceId == known.FileName) ? null : r.VendorResourceId,
                ForWhom = r.Roles is { } roles && !roles.Contains("student", StringComparison.OrdinalIgnoreCase) ? ForWhom.StaffOnly : known is { ForWhom: not ForWhom.StaffOnly } ? known.ForWhom : ForWhom.Everybody,
            };
            if (known is null) { added++; if (apply) ResourceStore.Add(c, next); }
            else if (next == known) same++;
            else { changed++; if (apply) ResourceStore.Save(c, next); }
        }
        if (apply) Premises.Add(c, by, premises.Clock.Now, new("took in resources", "school", null, null, $"{added} added, {changed} changed, {removed} removed, {found.Count} findings"));
        return new(added, changed, same, removed, found);
    }

    private ResourceId Added(IDbConnection c, Caller by, ResourceRow row)
    {
        var made = ResourceStore.Add(c, row);
        Premises.Add(c, by, premises.Clock.Now, new("added shared thing", "resource", made.Value, null, row.Title));
        return made;
    }

    private static ResourceRow Checked(IDbConnection c, SharedThingDraft draft, ResourceId? but)
    {
        var title = Refusals.Needed(draft.Title, "title", "The title", 120);
        if (ResourceStore.All(c).FirstOrDefault(r => r.Id != but && SafeName.Clash(r.Title, title)) is { } same)
            throw new RefusedException("name-taken", $"“{same.Title}” is on the list already.", "Give this one another title.", "title");
        IReadOnlyList<string> Lines(IReadOnlyList<string>? list) => [.. (list ?? []).Select(x => x.Trim()).Where(x => x.Length > 0).Take(200)];
        var (grades, courses) = (Lines(draft.Grades), Lines(draft.Courses));
        if (draft.ForWhom == ForWhom.SomeGrades && grades.Count == 0) throw new RefusedException("missing", "It is for some grades, and none is named.", "Name the grades.", "grades");
        if (draft.ForWhom == ForWhom.SomeCourses && courses.Count == 0) throw new RefusedException("missing", "It is for some courses, and none is named.", "Name the courses.", "courses");
        return new ResourceRow { Title = title, ForWhom = draft.ForWhom, Grades = string.Join('\n', grades), Courses = string.Join('\n', courses) };
    }

    private static IReadOnlyList<OfferedThing> Offered(IDbConnection c, ClassId id)
    {
        var k = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class");
        var used = ResourceStore.OfClass(c, id).Select(r => r.Id).ToHashSet();
        var grades = RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null && m.Grade is not null).Select(m => m.Grade!).ToHashSet();
        return [.. ResourceStore.All(c).Select(r => new OfferedThing(r.Id, r.Title, r.Url, r.FileName, r.ForWhom, used.Contains(r.Id),
            ResourceFit.Of(r.ForWhom, ResourceRow.Lines(r.Grades), ResourceRow.Lines(r.Courses), k.Course, grades).Why))];
    }

    private static bool Visible(ClassRow k) => k.State == ClassState.Open || (k.State == ClassState.Archived && k.AfterArchive == AfterArchive.View);
}
