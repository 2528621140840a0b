using System.Net;
using CsCheck;
using Daxlin.Core.Links;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>Which hosts are meant, and which addresses are anyone's.</summary>
public class LinkTests
{
    [Theory]
    [InlineData("8.8.8.8", true)]
    [InlineData("9.255.255.255", true)]
    [InlineData("10.0.0.1", false)]
    [InlineData("100.64.0.1", false)]
    [InlineData("127.1.2.3", false)]
    [InlineData("169.254.169.254", false)]
    [InlineData("172.15.255.255", true)]
    [InlineData("172.31.0.1", false)]
    [InlineData("192.168.1.1", false)]
    [InlineData("224.0.0.1", false)]
    [InlineData("255.255.255.255", false)]
    [InlineData("::1", false)]
    [InlineData("::ffff:10.0.0.1", false)]
    [InlineData("::ffff:8.8.8.8", true)]
    [InlineData("64:ff9b::a00:1", false)]
    [InlineData("fe80::1", false)]
    [InlineData("fd00::1", false)]
    [InlineData("2002:a00:1::", false)]
    [InlineData("2a00:1450:4001::1", true)]
    public void Only_what_anyone_on_the_internet_reaches_is_public(string address, bool isPublic) => Assert.Equal(isPublic, PublicAddress.Is(IPAddress.Parse(address)));

    /// <summary>However an address of version 4 is written, it is the same one.</summary>
    [Fact]
    public void An_address_is_as_public_as_the_same_one_in_the_other_version() => Gen.Byte.Array[4].Sample(
        bytes => Assert.Equal(PublicAddress.Is(new IPAddress(bytes)), PublicAddress.Is(new IPAddress(bytes).MapToIPv6())), iter: Effort.Times(5000));

    [Theory]
    [InlineData("files.vendor.example", "https://Files.Vendor.example/a.pdf", true)]
    [InlineData("files.vendor.example", "https://files.vendor.example:8443/a.pdf", false)]
    [InlineData("files.vendor.example", "https://files.vendor.example.thief.example/a.pdf", false)]
    [InlineData("files.vendor.example", "https://files.vendor.example@thief.example/a.pdf", false)]
    [InlineData("*.vendor.example", "https://a.b.vendor.example/", true)]
    [InlineData("*.vendor.example", "https://vendor.example/", false)]
    [InlineData("*.vendor.example", "https://thevendor.example/", false)]
    [InlineData("192.0.2.7:8080", "http://192.0.2.7:8080/a.pdf", true)]
    [InlineData("192.0.2.7:8080", "https://192.0.2.7/a.pdf", false)]
    [InlineData("[2001:db8::1]:8080", "http://[2001:DB8::1]:8080/", true)]
    public void A_host_is_the_one_that_was_named(string host, string link, bool fits) => Assert.Equal(fits, LinkHost.Read(host)!.Fits(new Uri(link)));

    [Theory]
    [InlineData("https://files.vendor.example/a.pdf", null)]
    [InlineData("http://192.0.2.7:8080/a.pdf", null)]
    [InlineData("https://192.0.2.7:8080/a.pdf", null)]
    [InlineData("http://files.vendor.example:443/a.pdf", "A document is fetched from files.vendor.example by https alone: on the way, anyone could put another in its place.")]
    [InlineData("https://me@files.vendor.example/a.pdf", "A link with a password in it is not followed.")]
    [InlineData("ftp://192.0.2.7:8080/a.pdf", "A document is fetched from 192.0.2.7 by https alone: on the way, anyone could put another in its place.")]
    [InlineData("https://thief.example/a.pdf", "thief.example:443 is not among the hosts that documents may be fetched from: files.vendor.example, 192.0.2.7:8080.")]
    [InlineData("file:///etc/passwd", ":-1 is not among the hosts that documents may be fetched from: files.vendor.example, 192.0.2.7:8080.")]
    public void What_is_not_fetched_says_why(string link, string? fault)
    {
        var hosts = new LinkHosts([LinkHost.Read("Files.vendor.example")!, LinkHost.Read("192.0.2.7:8080")!]);
        Assert.Equal(fault, hosts.FaultOf(new Uri(link)));
        Assert.StartsWith("No host is named", LinkHosts.None.FaultOf(new Uri(link)), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("https://files.vendor.example")]
    [InlineData("files.vendor.example/in")]
    [InlineData("user@files.vendor.example")]
    [InlineData("*")]
    [InlineData("")]
    public void What_is_no_host_is_none(string text) => Assert.Null(LinkHost.Read(text));
}
