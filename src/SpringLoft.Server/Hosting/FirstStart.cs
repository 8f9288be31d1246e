using SpringLoft.App;
using SpringLoft.App.People;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Years;

namespace SpringLoft.Server.Hosting;

/// <summary>Sets up a real school at the first start: its name, a coordinator, this school year, the shipped plans.</summary>
internal static class FirstStart
{
    /// <summary>Reads SPRING_LOFT_SCHOOL and SPRING_LOFT_ZONE; gives the text that tells how to sign in.</summary>
    internal static string Make(Premises premises, Func<string, string?> setting)
    {
        var password = $"{Convert.ToHexStringLower(System.Security.Cryptography.RandomNumberGenerator.GetBytes(6))}";
        premises.Db.Write(c =>
        {
            SchoolStore.Set(c, new SchoolRow
            {
                Name = setting("SPRING_LOFT_SCHOOL") ?? "Our school",
                Zone = setting("SPRING_LOFT_ZONE") ?? "Etc/UTC",
                ClassNamePattern = ClassName.DefaultPattern,
                UploadLimitBytes = Api.Uploads.Most,
            });
            foreach (var plan in ShippedPlans.All) PlanStore.Add(c, plan, premises.Clock.Now);
            foreach (var year in StartingYears.From(premises.Clock.Today)) YearStore.Add(c, year);
            var id = PersonStore.Add(c, new PersonRow { Role = SchoolRole.Coordinator, Given = "School", Family = "Coordinator", UserName = "coordinator" });
            PersonStore.SetPassword(c, id, SigningIn.Hash(password), mustChange: true, null, premises.Clock.Now);
        });
        return $"A new school was set up. Sign in as coordinator with the password {password}; it is asked to be changed.";
    }
}
