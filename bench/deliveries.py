"""Makes two deliveries of one large school, the second a term later: 30,000 students, 7,200 classes, 187,000 enrollments."""
import csv, io, random, sys, zipfile

def made(term):
    random.seed(7)
    given = [a + b for a in "Al Be Ca Do El Fi Go Hu In Jo Ka Le Mi No Ol Pe Qu Ro Si Tu".split() for b in "an bet cio da ek fa gun ha ion ja".split()]
    family = [a + b for a in "Ande Bran Cor Dahl Ern Fal Grim Hol Iv Jor Kell Lund Mar Nor Oak Pet Quill Rav Stor Thor".split() for b in "sen berg strand wick ford haven dal mark holm by".split()]
    users = [["sourcedId", "status", "enabledUser", "username", "givenName", "familyName", "identifier", "email", "grades", "role"]]
    for i in range(600):
        users.append([f"t{i}", "", "true", f"t{i}", random.choice(given), random.choice(family), "", f"t{i}@x.invalid", "", "teacher"])
    for i in range(30000):
        grade = 1 + i % 12
        users.append([f"s{i}", "", "true", f"s{i}", random.choice(given), random.choice(family), 100000 + i, "", str(grade + (term == 2 and i % 100 == 0)), "student"])
    classes = [["sourcedId", "status", "title", "courseSourcedId", "classCode", "location", "periods"]]
    for k in range(7200):
        classes.append([f"k{k}", "", f"Course {k // 12}", f"c{k // 12}", f"{k % 12 + 1}A", f"Room {k % 90}", str(k % 7 + 1)])
    courses = [["sourcedId", "title"]] + [[f"c{i}", f"Course {i}"] for i in range(600)]
    enrollments = [["sourcedId", "classSourcedId", "userSourcedId", "role", "primary"]]
    seen = set()
    def add(k, u, role, primary):
        if (k, u) in seen: return
        seen.add((k, u)); enrollments.append([f"{k}-{u}", k, u, role, primary])
    for k in range(7200): add(f"k{k}", f"t{k % 600}", "teacher", "true")
    n = 0
    while len(enrollments) - 1 < 187000:
        i = n % 30000; course = (i * 7 + n // 30000 * 91) % 600; section = i % 12
        if term == 2 and n % 150 == 0: section = (section + 1) % 12
        add(f"k{course * 12 + section}", f"s{i}", "student", "false"); n += 1
    return {"users": users, "classes": classes, "courses": courses, "enrollments": enrollments}

to = sys.argv[1]
for term in (1, 2):
    lists = made(term)
    with zipfile.ZipFile(f"{to}/term{term}.zip", "w", zipfile.ZIP_DEFLATED) as z:
        for name, rows in lists.items():
            text = io.StringIO(newline=""); csv.writer(text).writerows(rows)
            z.writestr(f"{name}.csv", text.getvalue())
            open(f"{to}/{name}{term}.csv", "w", newline="").write(text.getvalue())
    print(term, {k: len(v) - 1 for k, v in lists.items()}, file=sys.stderr)
