using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

/// <summary>When something counts as acknowledged.</summary>
public class AcknowledgingTests
{
    private static readonly LocalDate Today = new(2026, 9, 7);

    [Theory]
    [InlineData(AskedOf.Student, null, null, true, false)]
    [InlineData(AskedOf.Student, 1, null, false, false)]
    [InlineData(AskedOf.Home, null, null, false, true)]
    [InlineData(AskedOf.Home, 1, null, false, true)]
    [InlineData(AskedOf.Home, null, 1, false, false)]
    [InlineData(AskedOf.Both, null, null, true, true)]
    [InlineData(AskedOf.Both, 1, null, false, true)]
    [InlineData(AskedOf.Both, null, 1, true, false)]
    [InlineData(AskedOf.Both, 1, 1, false, false)]
    public void Each_who_is_asked_says_so_for_themselves(AskedOf asked, int? own, int? home, bool ownLeft, bool homeLeft) =>
        Acknowledging.Of(asked, new(own, home), 1).ShouldBe(new(ownLeft, homeLeft));

    [Fact]
    public void What_was_said_to_an_earlier_wording_does_not_count()
    {
        Acknowledging.Of(AskedOf.Both, new(1, 2), 2).ShouldBe(new(true, false));
        Acknowledging.Of(AskedOf.Both, new(2, 2), 2).Any.ShouldBeFalse();
    }

    [Fact]
    public void It_is_late_when_its_last_day_is_over_and_something_is_outstanding()
    {
        var left = new Outstanding(true, false);
        Acknowledging.IsLate(left, Today, Today).ShouldBeFalse("that day still counts");
        Acknowledging.IsLate(left, Today.PlusDays(-1), Today).ShouldBeTrue();
        Acknowledging.IsLate(new(false, false), Today.PlusDays(-1), Today).ShouldBeFalse();
        Acknowledging.IsLate(left, null, Today).ShouldBeFalse();
    }

    [Fact]
    public void A_code_is_read_however_it_is_typed()
    {
        var n = 0;
        var code = Acknowledging.MakeCode(most => n++ % most);
        code.ShouldBe("CDFG-HJKM-NPQR");
        Acknowledging.ReadCode(" cdfg hjkm npqr ").ShouldBe(code);
        Acknowledging.ReadCode("CDFGHJKMNPQR").ShouldBe(code);
        foreach (var wrong in new[] { null, "", "CDFG-HJKM", "CDFG-HJKM-NPQ0", "CDFG-HJKM-NPQRT", "ＣDFG-HJKM-NPQR" }) Acknowledging.ReadCode(wrong).ShouldBeNull();
    }

    [Fact]
    public void Nobody_guesses_one() => Math.Pow(TypedCode.Letters.Length, 12).ShouldBeGreaterThan(1e16);
}
