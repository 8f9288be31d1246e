using SpringLoft.App.Workspaces;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Letters;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Rosters;

/// <summary>An offer to lead a class that waits for its answer.</summary>
public sealed record LeadOffer(ClassId Class, string ClassName, PersonId To, string ToName, string ByName, Instant At);

/// <summary>Who leads a class.</summary>
/// <param name="Offer">To whom it is offered; null if to nobody.</param>
/// <param name="MaySet">May the asker say who leads it, without asking anybody?</param>
/// <param name="MayOffer">May they ask a colleague to?</param>
public sealed record LeadSight(IReadOnlyList<string> Leads, LeadTrouble Trouble, LeadOffer? Offer, bool MaySet, bool MayOffer);

/// <summary>What it means that somebody leads a class from then on.</summary>
/// <param name="Joins">True if they come onto the roster with it.</param>
/// <param name="StepDown">Who leads it now and stays as co-teacher.</param>
/// <param name="Leave">Who is off its roster with it, not being in the school any more.</param>
/// <param name="ShownNow">The teacher's name as students see it now.</param>
/// <param name="ShownThen">And then.</param>
public sealed record LeadMeans(PersonId To, string Name, bool Joins, IReadOnlyList<string> StepDown, IReadOnlyList<string> Leave, string ShownNow, string ShownThen);

/// <summary>Who leads a class, and the way from one to another: asked of both of them, or done by the coordinator.</summary>
public sealed class LeadDesk(Premises premises)
{
    /// <summary>Who leads it, what is wrong with that, and who is asked.</summary>
    public LeadSight See(Caller who, ClassId id) => premises.Db.Read(c =>
    {
        var at = ClassGate.Demand(c, who, id, Act.Arrange);
        var leads = Leads(c, id);
        return new LeadSight([.. leads.Select(l => l.Name)], Leading.TroubleOf(leads), LeadStore.Find(c, id) is { } o ? Of(o) : null,
            Permissions.InClass(at.Standing, Act.SetLead), Permissions.InClass(at.Standing, Act.OfferLead));
    });

    /// <summary>Says what it would mean. Writes nothing.</summary>
    public LeadMeans Preview(Caller who, ClassId id, PersonId to) => premises.Db.Read(c =>
    {
        var k = ClassGate.Demand(c, who, id, Act.OfferLead).Class;
        var d = Decide(c, k, to);
        return new LeadMeans(to, d.To.Name, d.Joins, [.. d.StepDown.Select(l => l.Name)], [.. d.Leave.Select(l => l.Name)], k.TeacherShown, d.ShownFrom ?? k.TeacherShown);
    });

    /// <summary>Says who leads a class from now on. An offer that waits is over.</summary>
    public void Set(Caller by, ClassId id, PersonId to) => premises.Db.Write(c =>
    {
        var k = ClassGate.Demand(c, by, id, Act.SetLead).Class;
        var d = Decide(c, k, to);
        Do(c, by, k, d);
        void Letter(PersonId whom, string subject, string text)
        {
            if (whom != by.Id) Tell(c, PersonStore.Find(c, whom)!, subject, text);
        }
        Letter(to, $"You lead {k.Name}", $"{by.Name} made you lead teacher of “{k.Name}”. You open, close and roll it over, and put folder plans to it.");
        foreach (var l in d.StepDown) Letter(l.Id, $"{k.Name} has another lead teacher", $"{by.Name} made {d.To.Name} lead teacher of “{k.Name}”. You are its co-teacher from now on.");
    });

    /// <summary>Asks somebody to lead a class from now on; it is done when they say yes. An offer of before is replaced.</summary>
    public void Offer(Caller by, ClassId id, PersonId to) => premises.Db.Write(c =>
    {
        var k = ClassGate.Demand(c, by, id, Act.OfferLead).Class;
        if (RosterStore.Member(c, id, by.Id) is not { Role: ClassRole.Lead, LeftAt: null })
            throw new RefusedException("lead-not-yours", "You don't lead this class, so it is not yours to offer.", "As coordinator say who leads it: that is done at once.");
        var d = Decide(c, k, to);
        LeadStore.Offer(c, id, to, by.Id, premises.Clock.Now);
        Premises.Add(c, by, premises.Clock.Now, new("offered the lead", "person", to.Value, id, d.To.Name));
        Tell(c, PersonStore.Find(c, to)!, $"Will you lead {k.Name}?", $"{by.Name} asks you to lead “{k.Name}” from now on. Say yes or no on your page for today.");
    });

    /// <summary>Takes an offer back.</summary>
    public void Withdraw(Caller by, ClassId id) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.OfferLead);
        var o = LeadStore.Find(c, id) ?? throw Refusals.NotFound("offer");
        LeadStore.Over(c, id);
        Premises.Add(c, by, premises.Clock.Now, new("took back the offer to lead", "person", o.ToId.Value, id, o.ToName));
    });

    /// <summary>What one is asked to lead.</summary>
    public IReadOnlyList<LeadOffer> Mine(Caller who)
    {
        ClassGate.Demand(who, Act.AnswerLeadOffer);
        return premises.Db.Read(c => LeadStore.To(c, who.Id).Select(Of).ToList());
    }

    /// <summary>Says yes or no to leading a class. On a yes one leads it from now on, and whoever asked is its co-teacher.</summary>
    public void Answer(Caller by, ClassId id, bool yes)
    {
        ClassGate.Demand(by, Act.AnswerLeadOffer);
        premises.Db.Write(c =>
        {
            var o = LeadStore.Find(c, id) is { } found && found.ToId == by.Id ? found : throw new RefusedException("not-found", "There is no such offer to you.", "It may have been taken back, or answered on another screen.");
            if (yes)
            {
                var k = ClassStore.Find(c, id)!;
                Do(c, by, k, Decide(c, k, by.Id));
            }
            else
            {
                LeadStore.Over(c, id);
                Premises.Add(c, by, premises.Clock.Now, new("said no to the lead", "class", id.Value, id, o.ClassName));
            }
            Tell(c, PersonStore.Find(c, o.ById)!, $"{o.ClassName}: {(yes ? "yes" : "no")}", yes ? $"{by.Name} leads “{o.ClassName}” from now on; you are its co-teacher." : $"{by.Name} does not take over “{o.ClassName}”: you go on leading it.");
        });
    }

    private void Do(IDbConnection c, Caller by, ClassRow k, LeadChange d)
    {
        var now = premises.Clock.Now;
        foreach (var l in d.StepDown) RosterStore.SetRole(c, k.Id, l.Id, ClassRole.CoTeacher);
        foreach (var l in d.Leave) RosterStore.Leave(c, k.Id, l.Id, now);
        if (d.Joins) RosterStore.Put(c, k.Id, d.To.Id, ClassRole.Lead, now);
        else RosterStore.SetRole(c, k.Id, d.To.Id, ClassRole.Lead);
        if (d.ShownFrom is { } shown && !ClassStore.SetDetails(c, k with { TeacherShown = shown })) throw Refusals.ChangedMeanwhile("class");
        LeadStore.Over(c, k.Id);
        Premises.Add(c, by, now, new("made lead teacher", "person", d.To.Id.Value, k.Id, d.To.Name));
        foreach (var l in d.StepDown) Premises.Add(c, by, now, new("made co-teacher", "person", l.Id.Value, k.Id, l.Name));
        foreach (var l in d.Leave) Premises.Add(c, by, now, new("took off the roster", "person", l.Id.Value, k.Id, l.Name));
    }

    private void Tell(IDbConnection c, PersonRow to, string subject, string text)
    {
        if (to is { Email: { } email, Active: true }) LetterStore.Add(c, email, to.Name.Display, subject, text, premises.Clock.Now);
    }

    private static LeadOffer Of(LeadOfferRow o) => new(o.ClassId, o.ClassName, o.ToId, o.ToName, o.ByName, o.OfferedAt);

    private static LeadChange Decide(IDbConnection c, ClassRow k, PersonId to)
    {
        if (k.Kind == WorkspaceKind.Kept) throw new RefusedException("kept-copy", "A kept copy belongs to whoever kept it.", "Make a class of it, and say who leads that.");
        var p = PersonStore.Find(c, to) ?? throw Refusals.NotFound("person");
        var m = RosterStore.Member(c, k.Id, to);
        return Leading.Decide(new(p.Id, p.Name.Display, p.Role, p.Active, m is { LeftAt: null } ? m.Role : null, m?.Role == ClassRole.Student), Leads(c, k.Id), k.State, k.TeacherShown);
    }

    internal static List<LeadFact> Leads(IDbConnection c, ClassId id) =>
        [.. PersonStore.Find(c, RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Lead && m.LeftAt is null).Select(m => m.PersonId)).Select(p => new LeadFact(p.Id, p.Name.Display, p.Role, p.Active, ClassRole.Lead))];
}
