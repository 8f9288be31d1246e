using SpringLoft.App.Letters;
using SpringLoft.Core.Rosters;
using SpringLoft.Store.Letters;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Tests.Rosters;

/// <summary>Family contacts that come with deliveries: shown before, applied, followed, taken back.</summary>
public class DeliveredContactsTests : DeliveryTest
{
    private const string Head = "sourcedId,status,role,givenName,familyName,identifier,email,agentSourcedIds\n";
    private const string Students = "s0,active,student,Ada,Ash,2000,,\ns1,active,student,Bo,Ash,2001,,\ns2,active,student,Cy,Elm,2002,,\n";

    private Task<long> Send(string contacts) => deliveries.Receive(school.Coordinator, school.Years[0].Id, "rosters.zip", Zip.Of(("users.csv", Head + Students + contacts)), CancellationToken.None);

    private string[] Contacts() => [.. new Families(school.Premises).See(school.Coordinator, null).Contacts.Select(k => $"{k.Name} {k.Email} {string.Join('+', k.Children.Select(x => x.Name))} {k.Why}")];

    private const string Ma = "g1,active,parent,Ma,Ash,,ma@ash.example,\"s0,s1\"\n";

    [Fact]
    public async Task They_come_shown_first_are_written_to_only_once_somebody_says_so_and_all_is_taken_back()
    {
        var id = await Send(Ma);
        deliveries.Changes(id, ChangeKind.NewContact, null, null, null, 0).Changes.Select(x => (x.Who, x.Why)).ShouldBe([("Ma Ash", "contact of Ada Ash, Bo Ash")]);
        Contacts().ShouldBeEmpty();
        Apply(id);
        Contacts().ShouldBe(["Ma Ash ma@ash.example Ada Ash+Bo Ash NotLetYet"]);
        applying.TakeBack(school.Coordinator, id);
        Contacts().ShouldBeEmpty();
    }

    [Fact]
    public async Task What_changes_and_who_goes_is_followed_and_taken_back_as_it_was_with_what_was_said_by_hand()
    {
        Apply(await Send(Ma));
        var k = new Families(school.Premises).See(school.Coordinator, null).Contacts.Single();
        new Families(school.Premises).LetWrite(school.Coordinator, [k.Id], true);
        var cy = school.Read(c => DeliveredStore.People(c)).Single(p => p.Given == "Cy").Id;
        k = new Families(school.Premises).See(school.Coordinator, null).Contacts.Single();
        new Families(school.Premises).Change(school.Coordinator, k.Id, new(k.Name, k.Email, "es", [.. k.Children.Select(x => x.Id), cy]), k.Version);
        var before = Contacts();
        before.ShouldBe(["Ma Ash ma@ash.example Ada Ash+Bo Ash+Cy Elm "]);

        school.Premises.Db.Write(c => LetterStore.Add(c, "ma@ash.example", "Ma Ash", "s", "About Ada.", school.Premises.Clock.Now, k.Id));
        var second = await Send("g1,active,parent,Mo,Ash,,mo@ash.example,s1\n");
        Apply(second);
        Contacts().ShouldBe(["Mo Ash mo@ash.example Bo Ash+Cy Elm "]);
        school.Read(c => LetterStore.Newest(c, 1)).Single().Text.ShouldBeNull("a letter that waits is about who is theirs no more");
        applying.TakeBack(school.Coordinator, second);
        Contacts().ShouldBe(before);

        var third = await Send("g2,active,guardian,Pa,Elm,,,s2\n");
        Apply(third);
        Contacts().ShouldBe(["Ma Ash ma@ash.example Ada Ash+Bo Ash+Cy Elm Gone", "Pa Elm  Cy Elm NoAddress"]);
        applying.TakeBack(school.Coordinator, third);
        Contacts().ShouldBe(before);
        new Families(school.Premises).See(school.Coordinator, null).Contacts.Single().Language.ShouldBe("es");
    }

    [Fact]
    public async Task Whoever_the_records_bring_is_not_removed_by_hand_as_they_would_come_again()
    {
        Apply(await Send(Ma));
        var k = new Families(school.Premises).See(school.Coordinator, null).Contacts.Single();
        Refused(() => new Families(school.Premises).Remove(school.Coordinator, k.Id)).ShouldBe("contact-delivered");
        Apply(await Send("g2,active,guardian,Pa,Elm,,,s2\n"));
        new Families(school.Premises).Remove(school.Coordinator, k.Id);
        Contacts().ShouldBe(["Pa Elm  Cy Elm NoAddress"]);
        school.Read(c => FamilyStore.Of(c, school.Umi.Id)).ShouldBeEmpty();
    }
}
