using System.Reflection;
using NetArchTest.Rules;

namespace SpringLoft.Server.Tests;

/// <summary>Arrows between the rooms of the house point one way: Server to App to Store and Formats to Core.</summary>
public class ArrowsTests
{
    private static readonly Dictionary<string, Assembly> Rooms = new()
    {
        ["Core"] = typeof(Core.Refusal).Assembly,
        ["Formats"] = typeof(Formats.Bags.BagWriter).Assembly,
        ["Store"] = typeof(Store.Database).Assembly,
        ["App"] = typeof(App.Premises).Assembly,
        ["StandIns"] = typeof(StandIns.SmtpOutbox).Assembly,
        ["Demo"] = typeof(Demo.DemoSchool).Assembly,
        ["Server"] = typeof(Program).Assembly,
    };

    [Theory]
    [InlineData("Core", "Formats,Store,App,StandIns,Demo,Server")]
    [InlineData("Formats", "Store,App,StandIns,Demo,Server")]
    [InlineData("Store", "Formats,App,StandIns,Demo,Server")]
    [InlineData("App", "StandIns,Demo,Server")]
    [InlineData("StandIns", "Demo,Server")]
    [InlineData("Demo", "StandIns,Server")]
    public void A_room_leans_on_none_but_those_below_it(string room, string notOn)
    {
        var forbidden = notOn.Split(',').Select(n => $"SpringLoft.{n}").ToArray();

        var result = Types.InAssembly(Rooms[room]).ShouldNot().HaveDependencyOnAny(forbidden).GetResult();

        (result.FailingTypeNames ?? []).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("System.IO.File")]
    [InlineData("Microsoft.Data.Sqlite")]
    [InlineData("Dapper")]
    [InlineData("Microsoft.AspNetCore")]
    [InlineData("Microsoft.Extensions.Logging")]
    [InlineData("NodaTime.SystemClock")]
    public void Core_knows_no_files_no_SQL_no_clock_and_no_web(string what) =>
        (Types.InAssembly(Rooms["Core"]).ShouldNot().HaveDependencyOn(what).GetResult().FailingTypeNames ?? []).ShouldBeEmpty();

    [Fact]
    public void Only_the_start_up_of_the_server_knows_the_demo_and_the_stand_ins() =>
        (Types.InAssembly(Rooms["Server"]).That().DoNotHaveName("Program").And().DoNotHaveName("StandInStart").ShouldNot().HaveDependencyOnAny("SpringLoft.Demo", "SpringLoft.StandIns").GetResult().FailingTypeNames ?? [])
            .Where(n => !n.Contains("Program", StringComparison.Ordinal) && !n.Contains("StandInStart", StringComparison.Ordinal)).ShouldBeEmpty();

    [Fact]
    public void SQL_stands_in_the_store_alone() =>
        (Types.InAssembly(Rooms["App"]).ShouldNot().HaveDependencyOn("Dapper").GetResult().FailingTypeNames ?? []).ShouldBeEmpty();
}
