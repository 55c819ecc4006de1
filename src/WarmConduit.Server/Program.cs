var app = WebApplication.CreateBuilder(args).Build(); app.Run(); public partial class Program;
