using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;

namespace SpringLoft.Store.Tests.Rosters;

public sealed class JoinStoreTests : StoreTest
{
    private static readonly Instant Later = At + Duration.FromDays(14);

    private void Put(string code, int? most = null) => Db.Write(c => JoinStore.Put(c, new JoinCodeRow { ClassId = Class, Code = code, MadeAt = At, ExpiresAt = Later, Most = most, Waits = true }));

    private PersonId Student(string userName) => Db.Write(c => Person(c, SchoolRole.Student, "Umi", "Hall", userName, null));

    [Fact]
    public void A_new_code_takes_the_place_of_the_old_one_and_counts_from_nought()
    {
        Put("KHMR4TWX", most: 30);
        Db.Write(c => { JoinStore.Count(c, Class); JoinStore.Count(c, Class); });
        Db.Read(c => JoinStore.ByCode(c, "KHMR4TWX"))!.ShouldSatisfyAllConditions(j => j.Used.ShouldBe(2), j => j.Most.ShouldBe(30), j => j.ExpiresAt.ShouldBe(Later), j => j.Waits.ShouldBeTrue());

        Put("3FDPN7CY");

        Db.Read(c => JoinStore.ByCode(c, "KHMR4TWX")).ShouldBeNull();
        Db.Read(c => JoinStore.OfClass(c, Class))!.ShouldSatisfyAllConditions(j => j.Code.ShouldBe("3FDPN7CY"), j => j.Used.ShouldBe(0), j => j.Most.ShouldBeNull());
        Db.Write(c => JoinStore.Remove(c, Class));
        Db.Read(c => JoinStore.OfClass(c, Class)).ShouldBeNull();
    }

    [Fact]
    public void No_two_classes_have_the_same_code()
    {
        Put("KHMR4TWX");

        Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() => Db.Write(c => JoinStore.Put(c, new JoinCodeRow { ClassId = NewClass(c, "Rope"), Code = "KHMR4TWX", MadeAt = At, ExpiresAt = Later })));
    }

    [Fact]
    public void Who_waits_stands_in_the_order_in_which_they_asked_and_once()
    {
        var (first, second) = (Student("a"), Student("b"));
        Db.Write(c => { JoinStore.Wait(c, Class, second, At + Duration.FromMinutes(5)); JoinStore.Wait(c, Class, first, At); JoinStore.Wait(c, Class, first, Later); });

        Db.Read(c => JoinStore.Waiting(c, Class)).ShouldBe([(first, At), (second, At + Duration.FromMinutes(5))]);
        Db.Write(c => JoinStore.WaitNoLonger(c, Class, first)).ShouldBeTrue();
        Db.Write(c => JoinStore.WaitNoLonger(c, Class, first)).ShouldBeFalse();
        Db.Read(c => JoinStore.Waiting(c, Class)).ShouldHaveSingleItem().Person.ShouldBe(second);
    }

    [Fact]
    public void Wrong_tries_are_each_persons_own()
    {
        var (one, other) = (Student("a"), Student("b"));
        Db.Read(c => JoinStore.Tries(c, one)).ShouldBe((0, null));

        Db.Write(c => { JoinStore.SetTries(c, one, 5, Later); JoinStore.SetTries(c, one, 6, Later + Duration.FromSeconds(4)); });

        Db.Read(c => (JoinStore.Tries(c, one), JoinStore.Tries(c, other))).ShouldBe(((6, Later + Duration.FromSeconds(4)), (0, null)));
    }

    [Fact]
    public void Closing_takes_back_the_invitations_that_are_open_and_no_other()
    {
        long Invite(string email) => Db.Write(c => JoinStore.Invite(c, new InvitationRow { ClassId = Class, Email = email, Role = ClassRole.CoTeacher, SentAt = At, ExpiresAt = Later }, $"sha of {email}", Teacher));
        var (accepted, withdrawn, open) = (Invite("a@x.invalid"), Invite("b@x.invalid"), Invite("c@x.invalid"));
        Db.Write(c => { JoinStore.Accept(c, accepted, Teacher, At); JoinStore.Withdraw(c, withdrawn, At); });

        Db.Write(c => JoinStore.WithdrawOpen(c, Class, Later)).ShouldBe(1);

        var all = Db.Read(c => JoinStore.Invitations(c, Class));
        all.Select(i => i.Id).ShouldBe([open, withdrawn, accepted], "newest first");
        all.ShouldSatisfyAllConditions(i => i[0].WithdrawnAt.ShouldBe(Later), i => i[1].WithdrawnAt.ShouldBe(At), i => i[2].WithdrawnAt.ShouldBeNull(), i => i[2].AcceptedAt.ShouldBe(At));
        Db.Read(c => JoinStore.ByToken(c, "sha of c@x.invalid"))!.Role.ShouldBe(ClassRole.CoTeacher);
        Db.Read(c => JoinStore.ByToken(c, "sha of nobody")).ShouldBeNull();
    }
}
