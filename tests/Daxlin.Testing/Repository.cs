namespace Daxlin.Testing;

/// <summary>Finds the parts of the checkout that tests work on.</summary>
public static class Repository
{
    public static string Root { get; } = Find();
    public static string Corpus => System.IO.Path.Combine(Root, "tests", "corpus");
    public static string Families => System.IO.Path.Combine(Root, "tests", "families");
    public static string Cases => System.IO.Path.Combine(Root, "tests", "cases");
    public static string Samples => System.IO.Path.Combine(Root, "samples");

    /// <summary>The service that is started: the one that ./test made ready, or the one that was built with the tests.</summary>
    public static string Service { get; } = Environment.GetEnvironmentVariable("DAXLIN_SERVICE") is { Length: > 0 } named ? named
        : System.IO.Path.Combine(Root, "src", "Daxlin.Service", "bin", Configuration, "net10.0", "Daxlin.Service.dll");

    /// <summary>Debug or Release, as the tests were built: bin/Release/net10.0.</summary>
    private static string Configuration => System.IO.Path.GetFileName(System.IO.Path.GetDirectoryName(System.IO.Path.TrimEndingDirectorySeparator(AppContext.BaseDirectory)))!;

    /// <summary>Folders that hold PDFs with a truth file.</summary>
    public static IEnumerable<string> FamiliesOf(string folder) =>
        Directory.GetDirectories(folder).Where(family => File.Exists(System.IO.Path.Combine(family, "truth.json"))).Order(StringComparer.Ordinal);

    /// <summary>The demo's vendors, by the names of their folders.</summary>
    public static IEnumerable<string> SampleVendors => FamiliesOf(Samples).Select(folder => System.IO.Path.GetFileName(folder));

    /// <summary>The invoices of one of the demo's vendors, in their order.</summary>
    public static IEnumerable<(string Name, byte[] Bytes)> SampleInvoices(string vendor) => Directory.GetFiles(System.IO.Path.Combine(Samples, vendor), "*.pdf")
        .Order(StringComparer.Ordinal).Select(file => (System.IO.Path.GetFileName(file), File.ReadAllBytes(file)));

    /// <summary>A file or folder of the checkout.</summary>
    public static string Path(string relative) => System.IO.Path.Combine(Root, relative);

    private static string Find()
    {
        var folder = AppContext.BaseDirectory;
        while (!File.Exists(System.IO.Path.Combine(folder, "Daxlin.slnx")))
            folder = System.IO.Path.GetDirectoryName(folder) ?? throw new InvalidOperationException("The tests do not run inside the checkout.");
        return folder;
    }
}
