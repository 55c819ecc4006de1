namespace WarmConduit.Core.Tests;

/// <summary>Rows of a table that the long campaign writes; a test that is run by itself tells them to its output.</summary>
internal static class CampaignTable
{
    public static void Row(string row)
    {
        TestContext.Current.TestOutputHelper?.WriteLine(row);
        if (Environment.GetEnvironmentVariable("WARM_CONDUIT_TABLE") is { Length: > 0 } file) File.AppendAllText(file, row + Environment.NewLine);
    }
}
