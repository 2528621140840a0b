using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Vendors' records.</summary>
internal static class VendorCommands
{
    public static Command Make()
    {
        var search = new Option<string?>("--search") { Description = "Only those with these letters in a name, a tax number or an account.", HelpName = "LETTERS" };
        var list = new Command("list", "List the vendors.") { search };
        list.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var vendors = await context.Service.GetAll("vendors" + (parsed.GetValue(search) is { } letters ? $"?search={Uri.EscapeDataString(letters)}" : ""), cancel);
            context.Print(vendors, () => Print(vendors));
            return ExitCodes.Done;
        }));

        var table = new Command("table", "Write the vendors into a file, as a spreadsheet takes them.") { TableFile.Out, search };
        table.SetAction(CommandContext.Run((parsed, context, cancel) => TableFile.Write(
            "vendors/table" + (parsed.GetValue(search) is { } letters ? $"?search={Uri.EscapeDataString(letters)}" : ""), "Vendors", parsed.GetValue(TableFile.Out)!, context, cancel)));

        var id = new Argument<int>("ID") { Description = "The vendor's number, as “vendor list” shows it." };
        var show = new Command("show", "Print a vendor's record.") { id };
        show.SetAction(CommandContext.Run(async (parsed, context, cancel) => Shows(await context.Service.Get($"vendors/{parsed.GetValue(id)}", cancel), context)));

        var file = new Argument<string>("FILE") { Description = "A CSV file; “vendor export” writes one with all columns." };
        var import = new Command("import", "Take vendors' records from a CSV file. Empty cells leave what is there; accounts wait for another person.") { file };
        import.SetAction(CommandContext.Run((parsed, context, cancel) => Import(parsed.GetValue(file)!, context, cancel)));

        var target = new Option<string>("--out") { Description = "The CSV file to write.", HelpName = "FILE", Required = true };
        var export = new Command("export", "Write all vendors' records into a CSV file.") { target };
        export.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var bytes = await context.Service.Download("vendors/export", cancel);
            await File.WriteAllBytesAsync(parsed.GetValue(target)!, bytes, cancel);
            context.Print(new JsonObject { ["file"] = parsed.GetValue(target) }, () => Terminal.Line($"Vendors written to {parsed.GetValue(target)}"));
            return ExitCodes.Done;
        }));

        var iban = new Argument<string>("IBAN") { Description = "The account, in quotation marks if it has blanks." };
        var reason = new Option<string>("--because") { Description = "How you know; it is kept on record with your name.", HelpName = "TEXT", Required = true };
        return new Command("vendor", "Vendors' records: names, tax numbers, bank accounts, terms.")
        {
            list, table, show, import, export,
            Account("account-add", "Add a bank account; it counts when another person has confirmed it.", "accounts", id, iban, reason),
            Account("account-confirm", "Confirm a bank account that another person added.", "accounts/confirmation", id, iban, reason),
            Account("account-end", "Say that an account is none of the vendor's any more.", "accounts/end", id, iban, reason),
        };
    }

    private static Command Account(string name, string says, string act, Argument<int> id, Argument<string> iban, Option<string> reason)
    {
        var command = new Command(name, says) { id, iban, reason };
        command.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var path = $"vendors/{parsed.GetValue(id)}";
            var seen = await context.Service.Get(path, cancel);
            var body = new JsonObject { ["iban"] = parsed.GetValue(iban), ["reason"] = parsed.GetValue(reason) };
            return Shows(await context.Service.Decide($"{path}/{act}", body, Shown.Number(seen["revision"]), cancel), context);
        }));
        return command;
    }

    private static async Task<int> Import(string file, CommandContext context, CancellationToken cancel)
    {
        if (!File.Exists(file))
            throw new RefusedException($"There is no file {file}.", exitCode: ExitCodes.WrongUsage);
        var rows = (await context.Service.PostText("vendors/import", await File.ReadAllTextAsync(file, cancel), cancel, "text/csv")).AsArray();
        var refused = rows.Where(row => Shown.Text(row!["outcome"]) == "refused").ToList();
        context.Print(rows, () =>
        {
            Terminal.Line(string.Join(", ", new[] { "added", "changed", "same", "refused" }
                .Select(outcome => (outcome, Count: rows.Count(row => Shown.Text(row!["outcome"]) == outcome))).Where(one => one.Count > 0).Select(one => $"{one.Count} {one.outcome}")));
            foreach (var row in refused)
                BatchSheet.Hanging($"row {Shown.Text(row!["row"]),3}  ", $"{Shown.Text(row["name"])}: {Shown.Text(row["reason"])}");
        });
        return refused.Count > 0 ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
    }

    private static void Print(JsonArray vendors)
    {
        if (vendors.Count == 0)
        {
            Terminal.Line("No vendors.");
            return;
        }
        var table = Terminal.NewTable(("id", true), ("vendor", false), ("terms", false), ("ledger", false), ("in", false), ("accounts", true), ("invoices", true), ("held", true));
        foreach (var vendor in vendors)
        {
            var waiting = Shown.Number(vendor!["accountsWaiting"]);
            table.AddRow(
                new Text(Shown.Text(vendor["id"])), new Text(Shown.Cut(Shown.Text(vendor["name"]), 24)), new Text(Shown.Cut(Shown.Text(vendor["terms"]), 16)), new Text(Shown.Cut(Shown.Text(vendor["ledgerAccount"]), 10)),
                new Text(Shown.Text(vendor["currency"])), new Text(Shown.Text(vendor["accounts"]) + (waiting > 0 ? $" and {waiting} waiting" : "")), new Text(Shown.Text(vendor["invoices"])),
                new Text(Shown.Text(vendor["held"])));
        }
        Terminal.Out.Write(table);
    }

    private static int Shows(JsonNode vendor, CommandContext context)
    {
        context.Print(vendor, () =>
        {
            Terminal.Line($"{Shown.Text(vendor["name"])}, vendor {Shown.Text(vendor["id"])}: {Shown.Text(vendor["invoices"])} invoices, {Shown.Text(vendor["held"])} held");
            Part("also spelt", Joined(vendor["otherNames"]));
            Part("tax numbers", Joined(vendor["taxIds"]));
            Part("bills in", Shown.Text(vendor["currency"]));
            Part("terms", vendor["terms"] is { } terms ? $"{Shown.Text(terms["days"])} days {(terms["fromMonthEnd"]!.GetValue<bool>() ? "from the month's end" : "net")}" : "");
            Part("ledger account", Shown.Text(vendor["ledgerAccount"]));
            Part("tax code", Shown.Text(vendor["taxCode"]));
            Part("templates", Joined(vendor["templates"]));
            foreach (var account in vendor["accounts"]!.AsArray())
            {
                var state = Shown.Text(account!["state"]);
                var who = state switch
                {
                    "waiting" => $"added by {Shown.Text(account["addedBy"])}, waits for another person",
                    "ended" => $"ended by {Shown.Text(account["endedBy"])}, {Shown.Time(account["endedAt"])}",
                    _ => $"confirmed by {Shown.Text(account["confirmedBy"])}, {Shown.Time(account["confirmedAt"])}; added by {Shown.Text(account["addedBy"])}",
                };
                Part("account", $"{Shown.Text(account["iban"])}  {who}");
            }
            foreach (var account in vendor["accountsSeen"]!.AsArray())
                Part("on invoices", $"{Shown.Text(account!["iban"])}  on {Shown.Text(account["invoices"])}, not on record");
            if (Shown.Number(vendor["movedInvoices"]) is > 0 and var moved)
                Terminal.Line($"{moved} open invoices are held or clear now that were not before.");
        });
        return ExitCodes.Done;
    }

    private static void Part(string name, string text)
    {
        if (text.Length > 0)
            BatchSheet.Hanging($"  {name,-14}  ", text);
    }

    private static string Joined(JsonNode? list) => string.Join(", ", list!.AsArray().Select(Shown.Text));
}
