using System.Collections.Frozen;

namespace Daxlin.Core.Checks;

/// <summary>What a kind of finding is, in a few words, where many are counted together.</summary>
public static class FindingWords
{
    private static readonly FrozenDictionary<string, string> Words = new Dictionary<string, string>
    {
        ["line-amount"] = "a line does not multiply out",
        ["lines-subtotal"] = "the lines do not add up",
        ["section-sum"] = "a sum between the rows does not come out",
        ["rows-under"] = "a list under a row does not add up",
        ["rate-base"] = "lines do not come to their tax base",
        ["tax-bases"] = "the tax bases do not add up",
        ["tax-rate"] = "a tax does not follow from its base",
        ["tax-rates"] = "the tax does not follow from the lines' rates",
        ["tax-sum"] = "the taxes do not add up",
        ["total"] = "the total does not come out",
        ["amount-due"] = "the amount due does not come out",
        ["own-tie"] = "a sum of the template's own does not come out",
        ["amount-untied"] = "an amount is in no sum",
        ["rate-missing"] = "a line has no tax rate",
        ["rate-untaxed"] = "a rate has no tax",
        ["rate-beside"] = "a rate is printed otherwise",
        ["basis-zero"] = "a price is for nothing",
        [DateRange.Code] = "a date that cannot be",
        ["due-before-date"] = "due before its date",
        ["value-missing"] = "a value is missing",
        ["value-unreadable"] = "a value cannot be read",
        ["value-ambiguous"] = "a value is printed in two ways",
        ["currency-differs"] = "another currency",
        ["letters-unknown"] = "letters that nobody knows",
        ["no-rows"] = "no rows were found",
        ["list-missing"] = "a list is missing",
        ["heading-missing"] = "a heading is missing",
        ["columns-moved"] = "columns have moved",
        ["block-not-closed"] = "the rows have no end",
        ["figure-elsewhere"] = "a figure stands in another column",
        ["word-cut"] = "a word was cut in two",
        ["text-cut"] = "a text runs into the next column",
        ["words-apart"] = "words of two columns were taken for one",
        ["text-unaccounted"] = "text that is part of nothing",
        ["row-doubtful"] = "which row a line belongs to",
        ["heading-or-text"] = "a heading, or text of a row?",
        ["text-apart"] = "text that stands apart",
        ["entered-differs"] = "entered otherwise than captured",
        ["unit-doubtful"] = "a unit in doubt",
        ["not-looked-up"] = "a word is in no list",
        ["page-unread"] = "a page was not read",
        [Capture.HiddenText.Code] = "text that nobody sees",
        [Capture.TextOverText.Code] = "text drawn over text",
        [Capture.MendedFile.Code] = "a damaged file that was mended",
        ["pages-missing"] = "pages are missing",
        ["correction-lost"] = "a correction has lost its row",
        ["kind-doubtful"] = "invoice or credit note?",
        ["parted-here"] = "where the file was parted",
        ["parted-otherwise"] = "its file is parted otherwise now",
        ["template-said"] = "sent for another template",
        ["template-chosen"] = "a person chose the template",
        [ElectronicWitness.Differs] = "the electronic invoice says otherwise",
        [ElectronicWitness.Other] = "the electronic invoice is another's",
        [ElectronicWitness.Unread] = "an electronic invoice that cannot be read",
        ["no-template"] = "no template knows it",
        ["several-templates"] = "several templates know it",
        [SeenBefore.Code] = "came before",
        [SeenBefore.SameFile] = "the same file again",
        [LikeBefore.Code] = "may have come under another number",
        [CreditAlone.Code] = "a credit note alone",
        [Vendors.VendorChecks.AccountChanged] = "another bank account",
        [Vendors.VendorChecks.NameDiffers] = "another vendor's name",
        [Vendors.VendorChecks.TaxIdDiffers] = "another tax number",
        [Vendors.VendorChecks.TaxIdFaulty] = "a tax number's check digits",
        [Vendors.VendorChecks.CurrencyUnusual] = "not the vendor's currency",
        [Vendors.VendorChecks.DueAgainstTerms] = "due against the terms",
        [Vendors.VendorChecks.RoundingUnusual] = "tax rounded another way",
        [Vendors.VendorChecks.NumberUnusual] = "a number of another form",
    }.ToFrozenDictionary();

    /// <param name="code">That of the finding; one without words is told as it is, its hyphens left out.</param>
    public static string Of(string code) => Words.GetValueOrDefault(code) ?? code.Replace('-', ' ');

    public static bool Knows(string code) => Words.ContainsKey(code);
}
