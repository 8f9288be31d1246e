using Microsoft.AspNetCore.Identity;
using SpringLoft.App.People;
using SpringLoft.Store.People;

namespace SpringLoft.App.Tests.People;

public class SigningInTests : SchoolTest
{
    private SigningIn SigningIn => new(school.Premises);

    [Fact]
    public void The_right_password_signs_in_whatever_the_case_of_the_name() => SigningIn.SignIn(" LEAD ", TinySchool.Password).Me.Name.ShouldBe("Oisín Farquhar");

    [Theory]
    [InlineData("lead", "wrong-words-here")]
    [InlineData("nobody", TinySchool.Password)]
    public void A_wrong_name_and_a_wrong_password_are_told_alike(string name, string password) => Refused(() => SigningIn.SignIn(name, password)).ShouldBe("sign-in-wrong");

    [Fact]
    public void Five_wrong_passwords_in_a_row_shut_sign_in_for_a_while_and_the_right_one_waits_too()
    {
        for (var i = 0; i < 5; i++) Refused(() => SigningIn.SignIn("lead", "wrong")).ShouldBe("sign-in-wrong");

        Refused(() => SigningIn.SignIn("lead", TinySchool.Password)).ShouldBe("sign-in-shut");
        school.Clock.AdvanceSeconds(3);
        SigningIn.SignIn("lead", TinySchool.Password).Me.Role.ShouldBe(SchoolRole.Teacher);
        Refused(() => SigningIn.SignIn("lead", "wrong")).ShouldBe("sign-in-wrong");
        SigningIn.SignIn("lead", TinySchool.Password).Me.Id.ShouldBe(school.Lead.Id);
    }

    [Fact]
    public void Forty_guesses_sent_at_once_are_no_more_than_five()
    {
        var signing = SigningIn;
        var codes = new System.Collections.Concurrent.ConcurrentBag<string>();
        Parallel.For(0, 40, new() { MaxDegreeOfParallelism = 40 }, i => codes.Add(Refused(() => signing.SignIn("lead", $"guess number {i}"))));

        codes.GroupBy(c => c).ToDictionary(g => g.Key, g => g.Count()).ShouldBe(new Dictionary<string, int> { ["sign-in-wrong"] = 5, ["sign-in-shut"] = 35 }, ignoreOrder: true);
    }

    [Fact]
    public void Many_who_sign_in_at_once_with_the_right_password_all_get_in()
    {
        var signing = SigningIn;
        Parallel.For(0, 20, new() { MaxDegreeOfParallelism = 20 }, _ => signing.SignIn("lead", TinySchool.Password).Me.Id.ShouldBe(school.Lead.Id));
    }

    [Fact]
    public void The_old_password_at_a_change_is_guessed_no_oftener()
    {
        var signing = SigningIn;
        for (var i = 0; i < 5; i++) Refused(() => signing.ChangePassword(school.Umi, $"guess {i}", "blue-otter-walks")).ShouldBe("password-wrong");

        Refused(() => signing.ChangePassword(school.Umi, TinySchool.Password, "blue-otter-walks")).ShouldBe("sign-in-shut");
        Refused(() => signing.SignIn("umi", TinySchool.Password)).ShouldBe("sign-in-shut");
    }

    [Fact]
    public void A_changed_password_ends_other_sign_ins()
    {
        var (_, stamp) = SigningIn.SignIn("umi", TinySchool.Password);

        var next = SigningIn.ChangePassword(school.Umi, TinySchool.Password, "blue-otter-walks");

        SigningIn.Who(school.Umi.Id, stamp).ShouldBeNull();
        SigningIn.Who(school.Umi.Id, next).ShouldNotBeNull();
        Refused(() => SigningIn.SignIn("umi", TinySchool.Password)).ShouldBe("sign-in-wrong");
    }

    [Fact]
    public void The_old_password_must_be_right_to_set_a_new_one() =>
        Refused(() => SigningIn.ChangePassword(school.Umi, "wrong", "blue-otter-walks")).ShouldBe("password-wrong");

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
