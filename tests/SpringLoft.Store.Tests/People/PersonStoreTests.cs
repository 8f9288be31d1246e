using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.People;

namespace SpringLoft.Store.Tests.People;

public class PersonStoreTests : StoreTest
{
    public PersonStoreTests() => Db.Write(c =>
    {
        Person(c, SchoolRole.Student, "Umi", "Hallgrímsson", "s1001", "1001");
        Person(c, SchoolRole.Student, "Halla", "Zulu", "s1002", "1002");
        Person(c, SchoolRole.Student, "Łukasz", "Łukasik", "s1010", "1010");
    });

    [Fact]
    public void A_user_name_and_a_student_number_are_given_once()
    {
        Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() => Db.Write(c => { Person(c, SchoolRole.Student, "X", "Y", "S1001", "9"); }));
        Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() => Db.Write(c => { Person(c, SchoolRole.Student, "X", "Y", "new", "1001"); }));
    }

    [Fact]
    public void A_new_password_forgets_wrong_tries_from_everywhere_and_ends_every_sign_in_but_one()
    {
        var id = Db.Read(c => PersonStore.ByUserName(c, "S1001"))!.Id;
        var (here, there) = Db.Write(c =>
        {
            PersonStore.SetPassword(c, id, "h", true, null, At);
            SignInTryStore.Count(c, "S1001", "address a", 7, At, At);
            var sessions = (SessionStore.Begin(c, id, "one", "Firefox", "a", At), SessionStore.Begin(c, id, "two", "Firefox", "b", At));
            PersonStore.SetPassword(c, id, "h2", false, id, At, but: sessions.Item1);
            return sessions;
        });

        Db.Read(c => PersonStore.SignIn(c, id))!.ShouldSatisfyAllConditions(s => s.SetBy.ShouldBe(id), s => s.SetAt.ShouldBe(At), s => s.MustChange.ShouldBeFalse());
        Db.Read(c => SignInTryStore.Of(c, "s1001", "address a")).ShouldBe((0, null));
        Db.Read(c => SessionStore.Of(c, id)).Select(s => s.Id).ShouldBe([here]);
        Db.Read(c => SessionStore.Find(c, "two")).ShouldBeNull();
    }

    [Fact]
    public void The_words_of_a_first_password_are_kept_until_they_are_forgotten_or_another_is_set()
    {
        var umi = Db.Write(c =>
        {
            var id = Person(c, SchoolRole.Student, "Umi", "Ravndal", "s7001", "7001");
            Store.Rosters.RosterStore.Put(c, Class, id, ClassRole.Student, At);
            PersonStore.SetPassword(c, id, "hash", mustChange: true, null, At, "acorn-owl-oak-11");
            return id;
        });
        (string? Phrase, bool MustChange) Kept() => Db.Read(c => PersonStore.FirstPhrases(c, Class))[umi];

        Kept().ShouldBe(("acorn-owl-oak-11", true));
        Db.Write(c => PersonStore.ForgetPhrase(c, umi));
        Kept().ShouldBe((null, true));
        Db.Write(c => PersonStore.SetPassword(c, umi, "hash", mustChange: true, null, At, "plum-fox-kite-12"));
        Db.Write(c => PersonStore.SetPassword(c, umi, "own", mustChange: false, null, At));
        Kept().ShouldBe((null, false));
    }
}
