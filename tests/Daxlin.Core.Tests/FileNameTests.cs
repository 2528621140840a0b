using Daxlin.Core.Capture;

namespace Daxlin.Core.Tests;

public class FileNameTests
{
    [Theory]
    [InlineData("BC-00471 March.pdf", "BC-00471 March.pdf")]
    [InlineData("../../etc/x.pdf", "x.pdf")]
    [InlineData("C:\\invoices\\x.pdf", "x.pdf")]
    [InlineData("a/b\\c.pdf", "c.pdf")]
    [InlineData("in\u202evoice\u0007.pdf ", "invoice.pdf")]
    [InlineData("folder/", "unnamed")]
    [InlineData("..", "unnamed")]
    [InlineData("", "unnamed")]
    [InlineData(".hidden", ".hidden")]
    [InlineData("a..", "a..")]
    public void A_received_name_is_no_path_and_has_nothing_that_cannot_be_seen(string received, string name) => Assert.Equal(name, FileName.Of(received));

    [Fact]
    public void A_long_name_keeps_its_beginning_and_its_end()
    {
        var whole = new string('a', 196) + ".pdf";
        Assert.Equal(whole, FileName.Of(whole));
        var cut = FileName.Of(new string('a', 150) + new string('b', 60) + "0123456789.pdf");
        Assert.Equal(new string('a', 150) + new string('b', 30) + "…bbbbb0123456789.pdf", cut);
        Assert.Equal(200, cut.Length);
    }
}
