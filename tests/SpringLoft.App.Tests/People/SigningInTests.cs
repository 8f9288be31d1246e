using Microsoft.AspNetCore.Identity;
using SpringLoft.App.People;
using SpringLoft.Store.People;

namespace SpringLoft.App.Tests.People;

public class SigningInTests : SchoolTest
{
    [Fact]
    public void The_right_password_signs_in_whatever_the_case_of_the_name() => school.SignIn(" LEAD ", TinySchool.Password).Me.Name.ShouldBe("Oisín Farquhar");

    [Theory]
    [InlineData("lead", "wrong-words-here")]
    [InlineData("nobody", TinySchool.Password)]
    public void A_wrong_name_and_a_wrong_password_are_told_alike(string name, string password) => Refused(() => school.SignIn(name, password)).ShouldBe("sign-in-wrong");

    [Fact]
    public void Five_wrong_passwords_in_a_row_shut_sign_in_for_a_while_and_the_right_one_waits_too()
    {
        for (var i = 0; i < 5; i++) Refused(() => school.SignIn("lead", "wrong")).ShouldBe("sign-in-wrong");

        Refused(() => school.SignIn("lead", TinySchool.Password)).ShouldBe("sign-in-shut");
        school.Clock.AdvanceSeconds(3);
        school.SignIn("lead", TinySchool.Password).Me.Role.ShouldBe(SchoolRole.Teacher);
        Refused(() => school.SignIn("lead", "wrong")).ShouldBe("sign-in-wrong");
        school.SignIn("lead", TinySchool.Password).Me.Id.ShouldBe(school.Lead.Id);
    }

    [Fact]
    public void Forty_guesses_sent_at_once_are_no_more_than_five()
    {
        var codes = new System.Collections.Concurrent.ConcurrentBag<string>();
        Parallel.For(0, 40, new() { MaxDegreeOfParallelism = 40 }, i => codes.Add(Refused(() => school.SignIn("lead", $"guess number {i}"))));

        codes.GroupBy(c => c).ToDictionary(g => g.Key, g => g.Count()).ShouldBe(new Dictionary<string, int> { ["sign-in-wrong"] = 5, ["sign-in-shut"] = 35 }, ignoreOrder: true);
    }

    [Fact]
    public void Many_who_sign_in_at_once_with_the_right_password_all_get_in()
    {
        Parallel.For(0, 20, new() { MaxDegreeOfParallelism = 20 }, _ => school.SignIn("lead", TinySchool.Password).Me.Id.ShouldBe(school.Lead.Id));
    }

    [Fact]
    public void The_old_password_at_a_change_is_guessed_no_oftener()
    {
        var here = school.Sessions.Who(school.SignIn("umi").Token)!.Session;
        for (var i = 0; i < 5; i++) Refused(() => school.SigningIn.ChangePassword(school.Umi, here, $"guess {i}", "blue-otter-walks")).ShouldBe("password-wrong");

        Refused(() => school.SigningIn.ChangePassword(school.Umi, here, TinySchool.Password, "blue-otter-walks")).ShouldBe("sign-in-shut");
        // Whoever sits down at their screen shuts nothing but that.
        school.SignIn("umi").Me.Id.ShouldBe(school.Umi.Id);
    }

    [Fact]
    public void A_changed_password_ends_other_sign_ins()
    {
        var (here, there) = (school.SignIn("umi").Token, school.SignIn("umi").Token);

        school.SigningIn.ChangePassword(school.Umi, school.Sessions.Who(here)!.Session, TinySchool.Password, "blue-otter-walks");

        school.Sessions.Who(there).ShouldBeNull();
        school.Sessions.Who(here)!.Me.Id.ShouldBe(school.Umi.Id);
        Refused(() => school.SignIn("umi")).ShouldBe("sign-in-wrong");
    }

    [Fact]
    public void The_old_password_must_be_right_to_set_a_new_one() =>
        Refused(() => school.SigningIn.ChangePassword(school.Umi, school.Sessions.Who(school.SignIn("umi").Token)!.Session, "wrong", "blue-otter-walks")).ShouldBe("password-wrong");

    [Theory]
    [InlineData("hallgrimsson1001")]
    [InlineData("TinyUmiHallgrímsson")]
    public void A_new_password_of_ones_own_names_and_number_is_refused(string password) =>
        Refused(() => school.SigningIn.ChangePassword(school.Umi, school.Sessions.Who(school.SignIn("umi").Token)!.Session, TinySchool.Password, password)).ShouldBeOneOf("password-weak", "password-has-name");

    [Fact]
    public void Wrong_passwords_from_one_place_shut_nobody_out_of_another()
    {
        var elsewhere = CameFrom.New(null, "198.51.100.9");
        for (var i = 0; i < 8; i++) Refused(() => school.SignIn("umi", "wrong", elsewhere));

        Refused(() => school.SignIn("umi", TinySchool.Password, elsewhere)).ShouldBe("sign-in-shut");
        school.SignIn("umi").Me.Id.ShouldBe(school.Umi.Id);
    }

    [Fact]
    public void A_browser_that_was_signed_in_before_gets_in_while_its_network_is_shut()
    {
        var here = CameFrom.New(null, "192.0.2.7");
        var mark = school.SignIn("umi", TinySchool.Password, here).Mark;
        for (var i = 0; i < 8; i++) Refused(() => school.SignIn("umi", "wrong", here));
        Refused(() => school.SignIn("umi", TinySchool.Password, here)).ShouldBe("sign-in-shut");

        school.SignIn("umi", TinySchool.Password, here with { Known = new Dictionary<PersonId, string> { [school.Umi.Id] = mark } }).Mark.ShouldBe(mark);
        // A mark of somebody else's opens nothing.
        Refused(() => school.SignIn("umi", TinySchool.Password, here with { Known = new Dictionary<PersonId, string> { [school.Rúna.Id] = mark } })).ShouldBe("sign-in-shut");
    }

    [Fact]
    public void Another_address_of_the_same_IPv6_network_gives_no_more_tries()
    {
        for (var i = 0; i < 5; i++) Refused(() => school.SignIn("umi", "wrong", CameFrom.New(null, $"2001:db8::{i + 1}")));

        Refused(() => school.SignIn("umi", TinySchool.Password, CameFrom.New(null, "2001:db8::99"))).ShouldBe("sign-in-shut");
    }

    [Fact]
    public void A_name_of_nobody_is_slowed_down_like_one_of_somebody()
    {
        string[] Codes(string name) => [.. Enumerable.Range(0, 7).Select(_ => Refused(() => school.SignIn(name, "wrong")))];

        Codes("nobody-at-all").ShouldBe(Codes("umi"));
    }

    [Fact]
    public void So_many_wrong_ones_from_one_network_and_only_browsers_known_before_are_let_try()
    {
        using var limits = new GuessLimits(fromNetwork: 3, overAll: 5, again: TimeSpan.FromDays(1));
        var signing = new SigningIn(school.Premises, limits, school.Providers);
        var (bad, good, third) = (CameFrom.New(null, "198.51.100.9"), CameFrom.New(null, "192.0.2.7"), CameFrom.New(null, "203.0.113.4"));
        foreach (var name in (string[])["a", "b", "c"]) Refused(() => signing.SignIn(name, "wrong", bad)).ShouldBe("sign-in-wrong");

        Refused(() => signing.SignIn("umi", TinySchool.Password, bad)).ShouldBe("sign-in-shut");
        var mark = signing.SignIn("umi", TinySchool.Password, good).Mark;
        // And over all networks together.
        foreach (var name in (string[])["d", "e"]) Refused(() => signing.SignIn(name, "wrong", third)).ShouldBe("sign-in-wrong");
        Refused(() => signing.SignIn("lead", TinySchool.Password, good)).ShouldBe("sign-in-shut");
        signing.SignIn("umi", TinySchool.Password, bad with { Known = new Dictionary<PersonId, string> { [school.Umi.Id] = mark } }).Me.Id.ShouldBe(school.Umi.Id);
    }

    [Fact]
    public void An_older_hash_is_made_anew_at_the_next_sign_in()
    {
        var old = new PasswordHasher<object>().HashPassword(new(), TinySchool.Password);
        school.Premises.Db.Write(c => PersonStore.Rehash(c, school.Umi.Id, old));

        school.SignIn("umi");

        var kept = school.Read(c => PersonStore.SignIn(c, school.Umi.Id))!.PasswordHash;
        kept.ShouldNotBe(old);
        // Rounds stand as a big-endian number after the format's mark and the function (ASP.NET Core, format 3).
        System.Buffers.Binary.BinaryPrimitives.ReadInt32BigEndian(Convert.FromBase64String(kept).AsSpan(5)).ShouldBe(210_000);
        school.SignIn("umi").Me.Id.ShouldBe(school.Umi.Id);
    }

    // What is kept is what ASP.NET Core's own hasher makes: it verifies it, no password stands in the file, and two
    // hashes of one password differ.
    [Fact]
    public void Passwords_are_kept_as_the_frameworks_hasher_keeps_them()
    {
        var kept = school.Read(c => PersonStore.SignIn(c, school.Lead.Id))!.PasswordHash;

        new PasswordHasher<string>().VerifyHashedPassword("", kept, TinySchool.Password).ShouldBe(PasswordVerificationResult.Success);
        new PasswordHasher<string>().VerifyHashedPassword("", kept, "other").ShouldBe(PasswordVerificationResult.Failed);
        // Format marker 0x01 of the framework's version 3: PBKDF2 with HMAC-SHA512 and a salt of its own.
        Convert.FromBase64String(kept)[0].ShouldBe((byte)0x01);
        SigningIn.Hash("same").ShouldNotBe(SigningIn.Hash("same"));
        var file = File.ReadAllText(Path.Combine(school.Folder, "spring-loft.db"), System.Text.Encoding.Latin1);
        file.ShouldNotContain(TinySchool.Password);
    }
}
