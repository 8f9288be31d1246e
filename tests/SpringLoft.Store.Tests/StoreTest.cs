using System.Data;
using Microsoft.Data.Sqlite;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.Store.Tests;

/// <summary>A fresh database file with a year, a course, a teacher and a class.</summary>
public abstract class StoreTest : IDisposable
{
    private readonly Scratch scratch = new();

    protected StoreTest()
    {
        Db = new Database(scratch.Under("store.db"));
        Db.Write(c =>
        {
            SchoolStore.Set(c, new SchoolRow { Name = "S", Zone = "Etc/UTC", ClassNamePattern = "{course}", UploadLimitBytes = 1 });
            Year = YearStore.Add(c, StartingYears.From(new LocalDate(2026, 9, 1))[0]);
            Teacher = Person(c, SchoolRole.Teacher, "Oisín", "Farquhar", "oisin", null);
            Class = NewClass(c, "Clay");
        });
    }

    protected static Instant At { get; } = Instant.FromUtc(2026, 9, 1, 8, 0);

    protected Database Db { get; }

    protected YearId Year { get; private set; }

    protected PersonId Teacher { get; private set; }

    protected ClassId Class { get; private set; }

    protected ClassId NewClass(IDbConnection c, string name) =>
        ClassStore.Add(c, new ClassRow { YearId = Year, CourseId = SchoolStore.CourseNamed(c, "Course", "pot", null).Id, Name = name, TeacherShown = "T", MadeAt = At });

    protected static PersonId Person(IDbConnection c, SchoolRole role, string given, string family, string userName, string? number) =>
        PersonStore.Add(c, new PersonRow { Role = role, Given = given, Family = family, UserName = userName, StudentNumber = number });

    public void Dispose()
    {
        Db.Dispose();
        SqliteConnection.ClearAllPools();
        scratch.Dispose();
        GC.SuppressFinalize(this);
    }
}
