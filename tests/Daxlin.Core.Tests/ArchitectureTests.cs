using ArchUnitNET.Domain;
using ArchUnitNET.Loader;
using ArchUnitNET.xUnitV3;
using Daxlin.Testing;
using static ArchUnitNET.Fluent.ArchRuleDefinition;

namespace Daxlin.Core.Tests;

/// <summary>Arrows point one way: Service → Reading → Core; the client knows the HTTP interface and nothing else.</summary>
public class ArchitectureTests
{
    private static readonly System.Reflection.Assembly Core = typeof(Pages.Page).Assembly;
    private static readonly System.Reflection.Assembly Reading = typeof(Daxlin.Reading.PdfReader).Assembly;
    private static readonly System.Reflection.Assembly Service = typeof(Daxlin.Service.ServiceHost).Assembly;
    private static readonly System.Reflection.Assembly Cli = System.Reflection.Assembly.Load("daxlin");

    private static readonly Lazy<Architecture> All = new(() => new ArchLoader().LoadAssemblies(Core, Reading, Service).Build());

    public ArchitectureTests() => Assert.SkipWhen(Effort.IsSmall, "No rule switched off changes who knows whom, and looking takes longer than all else.");

    private static Architecture Loaded => All.Value;

    [Fact]
    public void Core_depends_on_the_framework_alone() => Assert.All(
        Core.GetReferencedAssemblies(), name => Assert.StartsWith("System.", name.Name, StringComparison.Ordinal));

    [Fact]
    public void The_client_depends_on_no_part_of_the_service() => Assert.DoesNotContain(
        Cli.GetReferencedAssemblies(), name => name.Name!.StartsWith("Daxlin.", StringComparison.Ordinal));

    [Fact]
    public void Reading_knows_nothing_of_the_service_or_of_templates() => Types().That().ResideInAssembly(Reading)
        .Should().NotDependOnAny(Types().That().ResideInAssembly(Service).Or().ResideInNamespace("Daxlin.Core.Templates"))
        .Check(Loaded);

    [Fact]
    public void Core_touches_neither_files_nor_clocks_nor_the_network() => Types().That().ResideInAssembly(Core)
        .Should().NotDependOnAny(Types().That().HaveFullNameMatching(
            @"^System\.(IO\.(File|Directory|Path|FileStream)|TimeProvider|Net\..*|Console|Diagnostics\.Process|Threading\.Thread)$"))
        .Check(Loaded);

    [Fact]
    public void Only_one_place_knows_the_PDF_library() => Assert.All(
        new[] { Core, Service, Cli },
        assembly => Assert.DoesNotContain(assembly.GetReferencedAssemblies(), name => name.Name!.Contains("PdfPig", StringComparison.Ordinal)));

    /// <summary>What a person sees is decided on what was drawn, whichever library found it in the file.</summary>
    [Fact]
    public void What_is_drawn_and_seen_knows_no_PDF_library() => Types().That().ResideInNamespace("Daxlin.Reading.Drawing")
        .Should().NotDependOnAnyTypesThat().HaveFullNameMatching(@"^UglyToad\.")
        .Check(Loaded);
}
