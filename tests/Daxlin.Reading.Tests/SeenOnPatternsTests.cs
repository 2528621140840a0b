using System.Globalization;
using System.Text;
using CsCheck;
using Daxlin.Core.Pages;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>On and under patterns, and areas that are mixed with others or masked, a figure counts as seen only if a person sees it.</summary>
public sealed class SeenOnPatternsTests
{
    private const string Figures = "BT /F1 12 Tf 1 0 0 1 95 695 Tm (8) Tj ET";

    private const string Axis = "/ShadingType 2 /ColorSpace /DeviceRGB /Coords [0 0 400 0]";

    private static readonly string resources = $$"""
        /Pattern <<
          /Bar << /PatternType 2 /Shading << {{Axis}} /Extend [true true] /Function << /FunctionType 2 /Domain [0 1] /C0 [0 0 1] /C1 [1 0 0] /N 1 >> >> >>
          /Fade << /PatternType 2 /Shading << {{Axis}} /Extend [true true] /Function << /FunctionType 2 /Domain [0 1] /C0 [1 1 1] /C1 [0 0 0] /N 1 >> >> >>
          /Short << /PatternType 2 /Shading << {{Axis}} /Function << /FunctionType 2 /Domain [0 1] /C0 [0 0 1] /C1 [1 0 0] /N 1 >> >> >>
          /White << /PatternType 2 /Shading << {{Axis}} /Extend [true true] /Function << /FunctionType 2 /Domain [0 1] /C0 [1 1 1] /C1 [1 1 1] /N 1 >> >> >>
          /Joined << /PatternType 2 /Shading << {{Axis}} /Extend [true true] /Function << /FunctionType 3 /Domain [0 1] /Bounds [0.5] /Encode [0 1 0 1] /Functions [
            << /FunctionType 2 /Domain [0 1] /C0 [0 0 1] /C1 [1 0 0] /N 1 >> << /FunctionType 2 /Domain [0 1] /C0 [1 0 0] /C1 [0 0 1] /N 2 >> ] >> >> >>
          /Sampled << /PatternType 2 /Shading << {{Axis}} /Extend [true true] /Function 6 0 R >> >>
          /Parts << /PatternType 2 /Shading << {{Axis}} /Extend [true true] /Function [
            << /FunctionType 2 /Domain [0 1] /C0 [0] /C1 [1] /N 1 >> << /FunctionType 2 /Domain [0 1] /C0 [0] /C1 [0] /N 1 >> << /FunctionType 2 /Domain [0 1] /C0 [1] /C1 [0] /N 1 >> ] >> >>
          /Round << /PatternType 2 /Shading << /ShadingType 3 /ColorSpace /DeviceGray /Coords [100 700 0 100 700 30] /Background [1] /Function << /FunctionType 2 /Domain [0 1] /C0 [0] /C1 [0] /N 1 >> >> >>
          /Program << /PatternType 2 /Shading << {{Axis}} /Extend [true true] /Function 9 0 R >> >>
          /Hatch 7 0 R /Stencil 8 0 R /Itself 10 0 R
        >>
        /Shading << /Veil << {{Axis}} /Extend [true true] /Function << /FunctionType 2 /Domain [0 1] /C0 [0 0 1] /C1 [1 0 0] /N 1 >> >> >>
        /ColorSpace << /Grey [/Pattern /DeviceGray] /Any /Pattern >>
        /ExtGState <<
          /Plain << /BM /Normal /SMask /None >> /Multiply << /BM /Multiply >> /Screen << /BM /Screen >> /Difference << /BM /Difference >> /Lighten << /BM /Lighten >>
          /Masked << /SMask << /S /Luminosity /G 11 0 R >> >>
        >>
        """;

    private static readonly (string, byte[]?)[] objects =
    [
        ("/FunctionType 0 /Domain [0 1] /Range [0 1 0 1 0 1] /Size [3] /BitsPerSample 8", [0, 0, 255, 255, 0, 0, 0, 0, 255]),
        ("/PatternType 1 /PaintType 1 /TilingType 1 /BBox [0 0 6 6] /XStep 6 /YStep 6 /Resources << >>", Encoding.Latin1.GetBytes("1 0 0 rg 0 0 3 6 re f 1 0 0 RG 4 0 m 6 6 l S")),
        ("/PatternType 1 /PaintType 2 /TilingType 1 /BBox [0 0 4 4] /XStep 4 /YStep 4 /Resources << >>", Encoding.Latin1.GetBytes("0 0 4 4 re f")),
        ("/FunctionType 4 /Domain [0 1] /Range [0 1 0 1 0 1]", Encoding.Latin1.GetBytes("{ dup dup }")),
        ("/PatternType 1 /PaintType 1 /TilingType 1 /BBox [0 0 6 6] /XStep 6 /YStep 6 /Resources << /Pattern << /Itself 10 0 R >> /ColorSpace << /Any /Pattern >> >>", Encoding.Latin1.GetBytes("/Any cs /Itself scn 0 0 6 6 re f")),
        ("/Type /XObject /Subtype /Form /BBox [0 0 600 900] /Group << /S /Transparency /CS /DeviceGray >>", Encoding.Latin1.GetBytes("0 g 0 0 600 900 re f")),
    ];

    private static byte[] Drawn(string content) => TinyPdf.OnePage(content, resources: resources, objects: objects);

    private static Page Read(string content) => PdfReader.Read(Drawn(content + " /Plain gs 0 g BT /F1 10 Tf 1 0 0 1 400 800 Tm (Total) Tj ET"))[0];

    /// <summary>Null where a figure is seen, and nobody doubts it.</summary>
    private static UnseenBy? Hides(string content)
    {
        var page = Read(content);
        var why = page.Unseen.Where(word => word.Text == "8").Select(word => (UnseenBy?)word.Why).FirstOrDefault();
        // Of what nobody can tell whether it is seen, it is read and told.
        Assert.Equal(why is null or UnseenBy.Untold, page.Words.Any(word => word.Text == "8"));
        return why;
    }

    private static string On(string pattern) => $"/Any cs /{pattern} scn 90 690 100 30 re f ";

    [Theory]
    [InlineData("Bar", "1 g", null)]
    [InlineData("Bar", "0.5 0 0.5 rg", UnseenBy.Untold)]
    [InlineData("Bar", "0 g", null)]
    [InlineData("Short", "1 g", UnseenBy.Untold)]
    [InlineData("Fade", "1 g", UnseenBy.Untold)]
    [InlineData("Fade", "1 0 0 rg", null)]
    [InlineData("White", "1 g", UnseenBy.SameColour)]
    [InlineData("White", "0 g", null)]
    [InlineData("Joined", "1 g", null)]
    [InlineData("Joined", "0.5 0 0.5 rg", UnseenBy.Untold)]
    [InlineData("Sampled", "1 g", null)]
    [InlineData("Sampled", "1 0 0 rg", UnseenBy.Untold)]
    [InlineData("Parts", "1 g", null)]
    [InlineData("Parts", "0.5 0 0.5 rg", UnseenBy.Untold)]
    [InlineData("Round", "0 g", UnseenBy.Untold)]
    [InlineData("Round", "0 0 1 rg", null)]
    [InlineData("Program", "1 0 0 rg", UnseenBy.Untold)]
    [InlineData("Hatch", "0 g", null)]
    [InlineData("Hatch", "1 0 0 rg", UnseenBy.Untold)]
    [InlineData("Hatch", "1 g", UnseenBy.Untold)]
    [InlineData("Itself", "0 g", UnseenBy.Untold)]
    [InlineData("None", "0 g", UnseenBy.Untold)]
    public void A_figure_on_a_pattern_is_told_by_all_colours_that_it_has(string pattern, string ink, UnseenBy? hides) => Assert.Equal(hides, Hides(On(pattern) + ink + " " + Figures));

    [Theory]
    [InlineData(Figures + " /Any cs /Bar scn 90 690 100 30 re f", UnseenBy.Covered)]
    [InlineData(Figures + " /Any cs /Hatch scn 90 690 100 30 re f", UnseenBy.Untold)]
    [InlineData("/Any cs /Bar scn " + Figures, null)]
    [InlineData("/Any cs /White scn " + Figures, UnseenBy.SameColour)]
    [InlineData("/Any cs /Fade scn " + Figures, UnseenBy.Untold)]
    [InlineData("/Any cs /None scn " + Figures, UnseenBy.Untold)]
    [InlineData("/Grey cs 0 /Stencil scn 90 690 100 30 re f 0 g " + Figures, UnseenBy.Untold)]
    [InlineData("/Grey cs 0.5 /Stencil scn 90 690 100 30 re f 0 g " + Figures, null)]
    [InlineData("q 90 690 100 30 re W n /Veil sh Q 1 g " + Figures, null)]
    [InlineData("q 90 690 100 30 re W n /Veil sh Q 0 0 1 rg " + Figures, UnseenBy.Untold)]
    [InlineData("/Multiply gs 0 g 90 690 100 30 re f /Plain gs 0 g " + Figures, UnseenBy.SameColour)]
    [InlineData("/Multiply gs 1 1 0 rg 90 690 100 30 re f /Plain gs 0 g " + Figures, null)]
    [InlineData("0.5 g 90 690 100 30 re f /Multiply gs 0.5 g 90 690 100 30 re f /Plain gs 0.25 g " + Figures, UnseenBy.SameColour)]
    [InlineData(Figures + " /Multiply gs 0 g 90 690 100 30 re f", UnseenBy.Covered)]
    [InlineData(Figures + " /Multiply gs 1 1 0 rg 90 690 100 30 re f", null)]
    [InlineData(Figures + " /Screen gs 1 g 90 690 100 30 re f", UnseenBy.Untold)]
    [InlineData("/Multiply gs 0 g " + Figures, null)]
    [InlineData("/Multiply gs 1 g " + Figures, UnseenBy.SameColour)]
    [InlineData("0 g 90 690 100 30 re f /Multiply gs 1 0 0 rg " + Figures, UnseenBy.SameColour)]
    [InlineData("/Screen gs 0 g " + Figures, UnseenBy.Untold)]
    [InlineData("/Lighten gs 0 g " + Figures, UnseenBy.Untold)]
    [InlineData("/Masked gs 0 g " + Figures, UnseenBy.Untold)]
    public void What_is_mixed_masked_or_patterned_is_seen_only_where_all_ways_say_so(string content, UnseenBy? hides) => Assert.Equal(hides, Hides(content));

    /// <summary>Areas of every kind in any order, and a figure among them: what counts as seen changes the page's picture, what counts as unseen does not.</summary>
    [Fact]
    public void Whatever_lies_over_and_under_a_figure_it_is_held_for_seen_only_if_the_page_looks_otherwise_without_it()
    {
        string[] paints = ["0 g", "1 g", "0.5 g", "0 0 1 rg", "/Any cs /Bar scn", "/Any cs /Fade scn", "/Any cs /White scn", "/Any cs /Short scn", "/Any cs /Sampled scn", "/Any cs /Hatch scn", "/Grey cs 0.5 /Stencil scn"];
        var paint = Gen.Int[0, paints.Length - 1].Select(at => paints[at]);
        var way = Gen.Frequency((5, Gen.Const("/Plain")), (2, Gen.Const("/Multiply")), (1, Gen.Const("/Screen")), (1, Gen.Const("/Difference")), (1, Gen.Const("/Masked")));
        var areas = Gen.Select(way, paint, Gen.Int[0, 3], Gen.Int[0, 3], Gen.Int[2, 4], Gen.Int[2, 4]).Array[0, 4];
        var (seen, unseen, untold) = (0, 0, 0);
        Gen.Select(areas, areas, Gen.Select(way, paint), Gen.Int[1, 3], Gen.Int[1, 3]).Sample(
            (under, over, letter, column, row) =>
            {
                string Areas(IEnumerable<(string, string, int, int, int, int)> all) => string.Join(' ', all.Select(area =>
                    string.Create(CultureInfo.InvariantCulture, $"/Plain gs {area.Item1} gs {area.Item2} {40 * area.Item3} {620 + (40 * area.Item4)} {40 * area.Item5} {40 * area.Item6} re f")));
                string Page(string shown) =>
                    $"{Areas(under)} /Plain gs {letter.Item1} gs {letter.Item2} BT /F1 12 Tf 1 0 0 1 {(40 * column) + 15} {620 + (40 * row) + 15} Tm ({shown}) Tj ET {Areas(over)}";
                var why = Hides(Page("8"));
                if (why == UnseenBy.Untold)
                {
                    untold++;
                    return;
                }
                Assert.Equal(LookAlike(Rasteriser.Draw(Drawn(Page("8"))), Rasteriser.Draw(Drawn(Page(" ")))), why is not null);
                (seen, unseen) = (seen + (why is null ? 1 : 0), unseen + (why is null ? 0 : 1));
            },
            iter: 80, threads: 1);
        Assert.True(seen > 5 && unseen > 5 && untold > 5, $"{seen} were seen, {unseen} were not, of {untold} nobody could tell");
    }

    /// <summary>Two pictures look alike if no point of them differs by more than mixing is rounded by.</summary>
    private static bool LookAlike(byte[] one, byte[] other) => one.Length == other.Length && one.Zip(other).All(points => Math.Abs(points.First - points.Second) <= 4);
}
