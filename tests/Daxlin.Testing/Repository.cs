namespace Daxlin.Testing;

/// <summary>Finds the parts of the checkout that tests work on.</summary>
public static class Repository
{
    public static string Root { get; } = Find();
    public static string Corpus => Path.Combine(Root, "tests", "corpus");
    public static string Samples => Path.Combine(Root, "samples");

    /// <summary>Folders that hold PDFs with a truth file.</summary>
    public static IEnumerable<string> FamiliesOf(string folder) =>
        Directory.GetDirectories(folder).Where(family => File.Exists(Path.Combine(family, "truth.json"))).Order(StringComparer.Ordinal);

    private static string Find()
    {
        var folder = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(folder, "Daxlin.slnx")))
            folder = Path.GetDirectoryName(folder) ?? throw new InvalidOperationException("The tests do not run inside the checkout.");
        return folder;
    }
}
