using System.Collections;
using System.Reflection;
using System.Runtime.CompilerServices;
using SpringLoft.App.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

/// <summary>
/// Every use case that takes somebody who asks and a class asks itself whether they may: called as people without a place there,
/// each refuses before it writes or answers, whatever the gate of the server does. New ones are found by their parameters.
/// </summary>
public class EveryUseCaseTests : SchoolTest
{
    private static IEnumerable<MethodInfo> All() => typeof(ClassGate).Assembly.GetTypes().Where(t => t is { IsPublic: true, IsClass: true })
        .SelectMany(t => t.GetMethods(BindingFlags.Public | BindingFlags.Instance | BindingFlags.DeclaredOnly))
        .Where(m => m.GetParameters() is var p && p.Any(x => x.ParameterType == typeof(Caller)) && p.Any(x => x.ParameterType == typeof(ClassId)));

    private static string Name(MethodInfo m) => $"{m.DeclaringType!.Name}.{m.Name}";

    [Fact]
    public async Task Each_refuses_whoever_has_no_place_in_the_class()
    {
        school.OpenClass();
        var wrong = new List<string>();
        var tried = 0;
        foreach (var m in All())
        {
            foreach (var who in new[] { school.OtherTeacher, school.Outsider })
            {
                tried++;
                var before = Rows();
                var said = await Code(m, who);
                if (said is not ("not-found" or "not-allowed")) wrong.Add($"{Name(m)} as {who.Name}: {said}");
                if (Rows() != before) wrong.Add($"{Name(m)} as {who.Name} wrote something");
            }
        }
        string.Join("\n", wrong).ShouldBeEmpty();
        tried.ShouldBeGreaterThan(150, "or the test looks for the wrong thing");
    }

    private async Task<string> Code(MethodInfo m, Caller who)
    {
        try
        {
            var answer = m.Invoke(Use(m.DeclaringType!), [.. m.GetParameters().Select(p => Value(p.ParameterType, p.Name!, who, 0))]);
            if (answer is Task task) await task;
            return "answered";
        }
        catch (TargetInvocationException e) when (e.InnerException is RefusedException refused) { return refused.Refusal.Code; }
        catch (RefusedException refused) { return refused.Refusal.Code; }
        catch (Exception e) { return (e.InnerException ?? e).Message; }
    }

    private long Rows() => school.Premises.Db.Read(c => Dapper.SqlMapper.Query<string>(c, "SELECT name FROM sqlite_master WHERE type = 'table'").Sum(t => Dapper.SqlMapper.ExecuteScalar<long>(c, $"SELECT count(*) FROM {t}")));

    // A use case is made of the premises and of other use cases.
    private object Use(Type type)
    {
        if (type == typeof(Premises)) return school.Premises;
        var making = type.GetConstructors().Single();
        return making.Invoke([.. making.GetParameters().Select(p => Part(p.ParameterType))]);
    }

    private object? Part(Type type)
    {
        if (type == typeof(Premises)) return school.Premises;
        if (type == typeof(SpringLoft.App.Closing.IRunMilestones)) return new SpringLoft.App.Closing.NoMilestones();
        if (type == typeof(System.Threading.Channels.ChannelWriter<RunId>)) return school.Queue.Writer;
        if (type.Namespace?.StartsWith("SpringLoft", StringComparison.Ordinal) == true && type.GetConstructors().Length == 1) return Use(type);
        return type.IsValueType ? RuntimeHelpers.GetUninitializedObject(type) : null;
    }

    // What could be meant, so that a use case gets as far as asking whether somebody may.
    private object? Value(Type type, string name, Caller who, int depth)
    {
        if (Nullable.GetUnderlyingType(type) is { } inner) return Value(inner, name, who, depth);
        if (type == typeof(Caller)) return who;
        if (type == typeof(ClassId)) return school.Class;
        if (type == typeof(PersonId)) return school.Umi.Id;
        if (type == typeof(FolderId)) return school.FolderNamed("Papers");
        if (type == typeof(CancellationToken)) return CancellationToken.None;
        if (type == typeof(string)) return name.Contains("url", StringComparison.OrdinalIgnoreCase) ? "https://example.com/" : name.Contains("email", StringComparison.OrdinalIgnoreCase) ? "a@b.example" : "x";
        if (typeof(Delegate).IsAssignableFrom(type)) return null;
        if (type == typeof(Stream)) return new MemoryStream("x"u8.ToArray());
        if (type == typeof(bool)) return true;
        if (type == typeof(LocalDate)) return school.Premises.Clock.Today.PlusDays(3);
        if (type == typeof(LocalTime)) return new LocalTime(15, 30);
        if (type == typeof(LocalDateTime)) return school.Premises.Clock.LocalNow.PlusDays(3);
        if (type == typeof(Instant)) return school.Clock.GetCurrentInstant();
        if (type == typeof(decimal)) return 1m;
        if (type.IsEnum) return Enum.GetValues(type).GetValue(0);
        if (type.IsPrimitive) return Convert.ChangeType(1, type, System.Globalization.CultureInfo.InvariantCulture);
        if (type.IsGenericType && type.GetGenericArguments() is [var of] && typeof(IEnumerable).IsAssignableFrom(type))
        {
            var list = (IList)Activator.CreateInstance(typeof(List<>).MakeGenericType(of))!;
            list.Add(Value(of, name, who, depth + 1));
            return type.IsInstanceOfType(list) ? list : Activator.CreateInstance(typeof(HashSet<>).MakeGenericType(of), list);
        }
        if (type.GetConstructors() is { Length: > 0 } makings && depth < 6)
        {
            var making = makings.OrderByDescending(k => k.GetParameters().Length).First();
            return making.Invoke([.. making.GetParameters().Select(p => Value(p.ParameterType, p.Name!, who, depth + 1))]);
        }
        return null;
    }
}
